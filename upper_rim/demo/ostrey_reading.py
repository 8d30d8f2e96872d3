"""*Ostrey Ferries*: the pages that are long enough to be scrolled through."""

from __future__ import annotations

HOME = """We carry people, post and sheep between Ostrey, Skarrow and Lindwick, every day of the year that the sea allows.

## Sailing today

All crossings run to time. The *Marram* takes the early boat, the *Turnstone* the late one.

| Leaves | From | To |
|---|---|---|
| 07:10 | Osterhaven | Skarrow |
| 08:25 | Skarrow | Lindwick |
| 10:15 | Lindwick | Port Merrin |
| 11:20 | Port Merrin | Tolsey |
| 16:40 | Tolsey | Osterhaven |

## New this winter

Two crossings a day from 2 November, with hot soup on each. The saloon of the *Turnstone* has new windows, and for the first time in eleven years all of them can be seen through.

## How we decide whether to sail

At five every morning the harbour master of Osterhaven walks to the end of the mole with a lamp and a notebook. What she writes down there is on this page by a quarter past. If the swell is above two and a half metres the *Marram* stays in; above three, everything does, and the post waits with the sheep.

When a crossing does not sail, your ticket holds for a year, on any ship, in either direction. Nobody has to fill anything in.

## Bringing things

A bicycle, a pram or a dog costs nothing. A sheep costs four, and travels below. A piano should be talked about first; we have carried six, and lost none.

## Where the money goes

We belong to the three islands, in equal parts. What is left at the end of a year goes into paint, into the lifeboat, and into a fund from which every island child sails free until the age of sixteen.
"""

WALKS = """The ridge of Skarrow in three hours; the shore of Lindwick in one, tide permitting. Each begins and ends at a quay.

## The ridge of Skarrow

Leave the harbour by the net lofts and take the green lane uphill until it turns to stone. At the second gate one sees all five harbours at once, and, in October, the geese below one rather than above.

The ridge itself is easy going for an hour. Keep the wall to your left in mist. The last mile drops through bracken to the old signal house, where there is a bench, a tap and, from Easter, an honesty box with oatcakes in it.

## The shore of Lindwick

Only within two hours of low water. Start from the slip and walk against the sun, so that the light is behind you at the arches. The sand is firm; the weed is not. At the third arch turn inland, whatever the tide seems to promise.

## Round Tolsey with a pram

Forty minutes on a made path, with two benches and a café. The only gate opens both ways. In a north wind the far side of the island is the quiet one.

## The long one

From Port Merrin to the lighthouse and back takes a whole day in summer and cannot be done in winter. Carry water: the burn on the map runs under the stones, where it can be heard and not drunk.

## What to bring

- Boots with an edge to them; the turf is short and the slopes are not.
- A coat, whatever the morning looks like.
- The timetable, with the last boat underlined.

## If the weather turns

Go down on the side you came up. Every harbour office has a key to the hut above it, and none of them will ask why you want it. Ring the quay before you dry your socks: somebody may already be looking for you.
"""

BIRDS = """Terns from May, geese from October, an opinionated raven all year.

## Spring

The first to arrive are the wheatears, on the short turf above Osterhaven, in the last week of March. Terns follow in May. Their colony on the spit at Tolsey is roped off until August; stay on the boards, and wear a hat you do not mind.

## Summer

The cliffs of Skarrow fill up from the bottom: guillemots first, razorbills on what they leave, puffins in the turf on top. The evening boat passes close beneath at half past eight in June, with the engines slow. Children may ring the bell afterwards, not before.

## Autumn

Geese come down from the north in the second week of October, nearly always at night. One hears them over the harbour before one sees them on the saltings. Seals are not birds, but this is when they have their young on the shingle; keep two hundred paces away.

## Winter

Divers and long-tailed ducks in the sound, best seen from the *Turnstone* with the wind behind her. The raven of Port Merrin sits on the weather vane and is fed by no one, whatever it tells you.

## Where to stand

- The third arch on Lindwick, two hours after high water.
- The hide above the saltings: the key is at the shop.
- The stern of the first boat on any clear morning.

## What we would like to know

If you see a ring on a leg, write down its colours from the top to the bottom and leave the note at any quay. On the first Sunday of each month we read all of them out, and send them on to those who put the rings there.
"""

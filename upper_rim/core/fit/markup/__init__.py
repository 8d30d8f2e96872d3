"""Which boxes does markup become?"""

"""Of which boxes are pieces and items made?"""

"""Can anybody bring it down, reach another's rows or lose what was acknowledged? Each script starts a server as `deploy/`
sets it up, asks it over the network, and prints what it found beside what is promised:

    python -m bench.trust          all of them, about a quarter of an hour
    python -m bench.trust.reach    one of them
"""

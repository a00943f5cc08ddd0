"""How the command line is asked for paper, and for a cutting room's layers."""

import argparse


def add_paper(parser: argparse.ArgumentParser) -> None:
    """Add what says how sheets are written."""
    parser.add_argument("--paper", default="a4", help="a4, letter, a0 or roll, for .pdf")
    parser.add_argument("--numbered", action="store_true", help="layers by number, for .dxf")

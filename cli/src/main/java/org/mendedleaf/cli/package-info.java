/**
 * The core from a terminal. {@link Main} knows all commands; they stand in a package for each section of its help, and what they
 * share in {@code base}. Data goes to the standard output in the form that {@code docs/cli.schema.json} has, words beside it.
 * Nothing is decided here. Start reading at {@link Main}.
 */
package org.mendedleaf.cli;

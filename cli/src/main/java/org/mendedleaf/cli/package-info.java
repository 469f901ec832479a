/**
 * The core from a terminal: a class for each command, what they share ({@link Base}), and how they end ({@link Outcome}). Data
 * goes to the standard output in the form that {@code docs/cli.schema.json} has, words beside it. Nothing is decided here.
 * Start reading at {@link Main}.
 */
package org.mendedleaf.cli;

/**
 * Commands that show the past: listings, lines, comparisons, what was written, what was done. They change nothing. Start reading at
 * {@link LineCommand}.
 */
package org.mendedleaf.cli.past;

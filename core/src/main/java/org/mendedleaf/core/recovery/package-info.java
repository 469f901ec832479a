/**
 * How content goes out: a plan (pure), a check of what stands in its way, carrying it out with what is replaced kept first,
 * proof, and undo; restoring, rolling back, removing, copies and archives. Files that are opened by a program are given back as
 * a whole or not at all. It captures what it replaces, and decides nothing about what is kept. Start reading at {@link
 * Recovery}.
 */
package org.mendedleaf.core.recovery;

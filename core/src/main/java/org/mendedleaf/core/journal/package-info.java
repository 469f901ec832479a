/**
 * What people did to files, as values; they stand in the catalogue, and undo begins from them. Start reading at {@link Action}.
 */
package org.mendedleaf.core.journal;

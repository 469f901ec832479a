/**
 * Who did what, when, to which files, and the way back from there. Start reading at {@link JournalModel}.
 */
package org.mendedleaf.desktop.journal;

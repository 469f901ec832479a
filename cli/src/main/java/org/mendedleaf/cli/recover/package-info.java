/** Commands that bring back, roll back, copy, remove and undo. Start reading at {@link RestoreCommand}. */
package org.mendedleaf.cli.recover;

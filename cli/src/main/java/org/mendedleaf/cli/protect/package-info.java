/** Commands that protect folders, capture and watch them. Start reading at {@link ProtectCommand}. */
package org.mendedleaf.cli.protect;

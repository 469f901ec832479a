/**
 * Commands that look after vaults: whether they are whole, their copies, what looks wrong and who is told. Start reading at {@link
 * StatusCommand}.
 */
package org.mendedleaf.cli.care;

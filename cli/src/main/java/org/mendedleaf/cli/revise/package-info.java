/**
 * Commands for revisions that come in, and for what is said of them: putting, publishing, checking out, folding copies. Start
 * reading at {@link PutCommand}.
 */
package org.mendedleaf.cli.revise;

/**
 * Unfolds documents in the background, so that their versions share what is the same in them; captures store them as they come and
 * never wait for it. {@link org.mendedleaf.core.unfold.Unfolding} does the work, {@link org.mendedleaf.core.unfold.UnfoldKeeper}
 * says when. How a document is unfolded is known by the vault; here it is decided which ones are, and whether that saves
 * anything. The chunks that nobody needs afterwards are given back with all others, by retention.
 */
package org.mendedleaf.core.unfold;

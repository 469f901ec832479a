/**
 * Deflate (RFC 1951) as the widespread encoders do it, bit for bit and for ever: what was inflated to be stored is given
 * back by compressing it again, and so nothing here may ever change what it writes. Knows nothing of vaults.
 */
@NullMarked
package org.mendedleaf.core.deflate;

import org.jspecify.annotations.NullMarked;

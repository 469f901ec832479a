/**
 * Copies of the vault on other drives: kept in step pack by pack, proved by reading back, opened as vaults that can only be
 * read, and healed by and healing the vault they are copies of.
 */
@NullMarked
package org.mendedleaf.core.copies;

import org.jspecify.annotations.NullMarked;

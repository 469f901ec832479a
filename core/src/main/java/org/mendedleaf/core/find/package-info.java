/**
 * Finds anything that anybody ever wrote: {@link org.mendedleaf.core.find.Wanted} is what was typed, {@link
 * org.mendedleaf.core.find.FindIndex} holds the words of all versions beside the catalogue, {@link
 * org.mendedleaf.core.find.Indexer} fills it, and {@link org.mendedleaf.core.find.Finder} answers.
 */
package org.mendedleaf.core.find;

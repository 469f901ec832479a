/**
 * What documents say, without the programs that made them: one model ({@link org.mendedleaf.core.document.Document}), one
 * reader for each family of formats, and one door to all of them ({@link org.mendedleaf.core.document.Documents}). Readers
 * are pure: bytes in, a document out; nothing in a document is executed, fetched or followed. {@link
 * org.mendedleaf.core.document.DocumentProcess} runs them in a process of their own.
 */
package org.mendedleaf.core.document;

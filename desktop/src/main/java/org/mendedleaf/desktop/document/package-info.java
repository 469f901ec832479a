/**
 * How documents and their differences look on the screen: nodes over what {@link org.mendedleaf.core.document.Document} and
 * {@link org.mendedleaf.core.compare.Comparison} say. They know nothing of lines, places and screens.
 */
package org.mendedleaf.desktop.document;

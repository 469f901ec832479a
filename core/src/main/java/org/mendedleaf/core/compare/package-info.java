/**
 * What changed from one content to another: one class for each kind of content, pure, with its algorithm's source named. {@link
 * Comparison} is what comes of it, as a message, as HTML, patch, CSV and JSON. It reads documents and knows nothing of windows.
 * Start reading at {@link Compare}; {@link TwoMoments} says what changed in a folder.
 */
package org.mendedleaf.core.compare;

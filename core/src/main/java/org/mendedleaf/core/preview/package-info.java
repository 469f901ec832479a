/**
 * The words of a content as the guard compares them, and the kind that its bytes say it is. Start reading at {@link Contents}.
 */
package org.mendedleaf.core.preview;

/**
 * Every word a user sees, in each language, and how sizes, numbers, days and times are said. Start reading at {@link Words}.
 */
package org.mendedleaf.core.words;

/**
 * The guide for users: pages of Markdown that are shipped inside, in the languages of the program, and the HTML that is made of them. It knows no
 * screen. Start reading at {@link org.mendedleaf.core.guide.Guide}.
 */
@NullMarked
package org.mendedleaf.core.guide;

import org.jspecify.annotations.NullMarked;

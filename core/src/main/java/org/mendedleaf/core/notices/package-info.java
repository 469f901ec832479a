/**
 * What needs attention, of everything that the program keeps an eye on, and how people are told of it: in the program, and by
 * notices of the desktop, outside of quiet hours.
 */
@NullMarked
package org.mendedleaf.core.notices;

import org.jspecify.annotations.NullMarked;

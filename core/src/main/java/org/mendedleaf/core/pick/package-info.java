/**
 * Takes single changes of a file back, so that the rest of it stays as it is: {@link org.mendedleaf.core.pick.Picking} says
 * what can be done and does it, in a class for each kind of file.
 */
package org.mendedleaf.core.pick;

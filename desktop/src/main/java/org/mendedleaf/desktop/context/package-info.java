/**
 * What all screens share and none of them owns: the open vaults and their places ({@link AppContext}, {@link OpenPlace}), work
 * off the screen ({@link Background}, {@link Jobs}), and the ways from screen to screen ({@link Navigator}). It knows no screen;
 * the shell, which knows all, goes where the navigator is asked to. Start reading at {@link AppContext}.
 */
package org.mendedleaf.desktop.context;

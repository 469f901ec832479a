/**
 * The window: its screens, keys, theme and status bar, what all screens share ({@link Desk}), and work beside the thread of the
 * screen ({@link Background}, {@link Jobs}). Start reading at {@link App}.
 */
package org.mendedleaf.desktop.shell;

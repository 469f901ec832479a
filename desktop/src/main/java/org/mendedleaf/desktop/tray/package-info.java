/**
 * The tray icon: a small program of its own, without the window's toolkit, which says whether files are kept and opens the window. Nothing
 * depends on it. What it says is decided in {@link TrayModel}; start reading at {@link TrayProgram}.
 */
package org.mendedleaf.desktop.tray;

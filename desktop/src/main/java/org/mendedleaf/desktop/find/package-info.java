/**
 * One box for anything that anybody ever wrote, and what was found by file. Start reading at {@link FindModel}.
 */
package org.mendedleaf.desktop.find;

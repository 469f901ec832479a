package org.mendedleaf.core.disk;

import com.sun.jna.Library;
import com.sun.jna.Native;
import com.sun.jna.NativeLong;
import com.sun.jna.Platform;

/**
 * The memory that libraries in machine code took and gave up again. The C library of Linux keeps it until it is asked
 * (malloc_trim(3)); elsewhere the system takes it back by itself.
 */
public final class SystemMemory {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(SystemMemory.class);

    private SystemMemory() {}

    private interface C extends Library {
        int malloc_trim(NativeLong keep);
    }

    /** Gives back to the system what is not used; whether anything was. */
    public static boolean giveBack() {
        if (!Platform.isLinux()) {
            return false;
        }
        try {
            NativeLibraries.readyForSystemCalls();
            return Native.load("c", C.class).malloc_trim(new NativeLong(0)) != 0;
        } catch (UnsatisfiedLinkError | RuntimeException e) {
            // Another C library does not have it.
            log.debug("memory stays as it is: {}", String.valueOf(e.getMessage()));
            return false;
        }
    }
}

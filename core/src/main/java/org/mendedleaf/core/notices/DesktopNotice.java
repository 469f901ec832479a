package org.mendedleaf.core.notices;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * A notice of the desktop, by what the desktop itself has for that: on Linux the service of the freedesktop Desktop
 * Notifications Specification, version 1.2, called by {@code notify-send} or {@code gdbus}, whichever is there. Elsewhere, and
 * where there is neither, people are told in the program only.
 */
public final class DesktopNotice {

    private static final long PATIENCE_SECONDS = 10;

    /** So long it stays on the screen. Milliseconds. */
    private static final int SHOWN_MILLIS = 15_000;

    private DesktopNotice() {}

    /** Shows a notice. */
    @FunctionalInterface
    public interface Teller {
        /** Whether somebody could see it. */
        boolean tell(String title, String words);
    }

    /** Shows it on the desktop of who runs this program. */
    public static boolean tell(String title, String words) {
        if (!System.getProperty("os.name", "").startsWith("Linux")) {
            return false;
        }
        return run(notifySend(title, words)) || run(gdbus(title, words));
    }

    /** The body of a notice may hold markup: what would be taken for some is said by name. */
    static List<String> notifySend(String title, String words) {
        return List.of(
                "notify-send",
                "--app-name=Mended Leaf",
                "--icon=mended-leaf",
                "--expire-time=" + SHOWN_MILLIS,
                "--",
                title,
                markup(words));
    }

    static List<String> gdbus(String title, String words) {
        List<String> call = new ArrayList<>(List.of(
                "gdbus",
                "call",
                "--session",
                "--dest=org.freedesktop.Notifications",
                "--object-path=/org/freedesktop/Notifications",
                "--method=org.freedesktop.Notifications.Notify"));
        call.addAll(List.of(
                text("Mended Leaf"),
                "0",
                text("mended-leaf"),
                text(title),
                text(markup(words)),
                "[]",
                "{}",
                String.valueOf(SHOWN_MILLIS)));
        return call;
    }

    private static String markup(String words) {
        return words.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    /** A string as GVariant writes it. */
    private static String text(String words) {
        return "'" + words.replace("\\", "\\\\").replace("'", "\\'").replace("\n", "\\n") + "'";
    }

    private static boolean run(List<String> command) {
        try {
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
                return process.exitValue() == 0;
            }
            process.destroyForcibly();
            return false;
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(DesktopNotice.class).debug("there is no {}", command.get(0), e);
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}

package org.mendedleaf.core.systems;

import java.net.URI;
import java.util.Locale;
import org.mendedleaf.core.words.Words;

/** Whether what is sent to an address could be read by others on its way. Pure: no name is looked up. */
public final class PlainHttp {

    private PlainHttp() {}

    /** Whether an address is reached without encryption, and not on this computer. */
    public static boolean isReadableOnTheWay(String address) {
        URI uri;
        try {
            uri = URI.create(address.strip());
        } catch (IllegalArgumentException e) {
            return false;
        }
        return "http".equalsIgnoreCase(uri.getScheme()) && !isLoopback(uri.getHost());
    }

    /**
     * Refuses such an address.
     *
     * @throws IllegalArgumentException with a message for the user, who may choose it all the same
     */
    public static void refuse(String address) {
        if (isReadableOnTheWay(address)) {
            throw new IllegalArgumentException(Words.of("connect.plain", address));
        }
    }

    /** The names and addresses of this computer itself (RFC 6761, 6.3; RFC 1122, 3.2.1.3; RFC 4291, 2.5.3). */
    private static boolean isLoopback(@org.jspecify.annotations.Nullable String host) {
        if (host == null) {
            return false;
        }
        String name = host.toLowerCase(Locale.ROOT);
        return name.equals("localhost")
                || name.endsWith(".localhost")
                || name.equals("[::1]")
                || name.matches("127(\\.\\d{1,3}){3}");
    }
}

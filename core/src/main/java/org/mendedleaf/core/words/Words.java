package org.mendedleaf.core.words;

import java.text.MessageFormat;
import java.util.Locale;
import java.util.MissingResourceException;
import java.util.ResourceBundle;
import org.jspecify.annotations.Nullable;

/**
 * The words a user sees, by key, from the one {@code messages.properties}. Patterns follow {@link MessageFormat}.
 *
 * <pre>{@code
 * Words.of("vault.busy", "desktop on this computer", "since 10:42")
 * }</pre>
 */
public final class Words {

    private static final ResourceBundle BUNDLE =
            ResourceBundle.getBundle("org.mendedleaf.core.words.messages", Locale.getDefault());

    private Words() {}

    /** The language of the words. */
    public static Locale locale() {
        Locale found = BUNDLE.getLocale();
        return found.getLanguage().isEmpty() ? Locale.ENGLISH : found;
    }

    /** The words for a key that has no places, as they stand in the bundle: an apostrophe there is one. */
    public static String plain(String key) {
        return BUNDLE.getString(key);
    }

    /**
     * The words for a key, with its places filled.
     *
     * @throws IllegalArgumentException when the key is missing; that is a defect, and a test looks for it
     */
    public static String of(String key, @Nullable Object... arguments) {
        try {
            String pattern = BUNDLE.getString(key);
            return new MessageFormat(pattern, Locale.ROOT).format(arguments);
        } catch (MissingResourceException e) {
            throw new IllegalArgumentException("expected words for the key '" + key + "', found none", e);
        }
    }
}

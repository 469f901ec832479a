package org.mendedleaf.core.words;

import java.io.IOException;
import java.io.InputStream;
import java.text.MessageFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.MissingResourceException;
import java.util.ResourceBundle;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The words a user sees, by key, from {@code messages.properties} (English) and its like in other languages. Patterns follow
 * {@link MessageFormat}. The language is that of the system, until {@link #use} says another.
 *
 * <pre>{@code
 * Words.of("vault.busy", "desktop on this computer", "since 10:42")
 * }</pre>
 */
public final class Words {

    /** The languages that there are words in; the first is taken where the system has another one. */
    public static final List<Locale> LANGUAGES = List.of(Locale.ENGLISH, Locale.GERMAN);

    private static final String NAME = "org.mendedleaf.core.words.messages";
    /** What there are files for. */
    static final Set<Locale> BUNDLES = Set.of(Locale.ROOT, Locale.US, Locale.GERMAN);

    private static final ResourceBundle.Control OURS = new OurBundles();
    private static final ResourceBundle ENGLISH = ResourceBundle.getBundle(NAME, Locale.ROOT, OURS);

    private static final String PROPERTY = "mendedleaf.language";
    private static final Locale OF_SYSTEM = Locale.getDefault(Locale.Category.DISPLAY);

    /** Signs between words that are stored in several languages; nobody types them. */
    private static final String BEGINS = "\u001e";

    private static final char SAYS = '\u001f';
    private static final ThreadLocal<@Nullable Spoken> HERE = new ThreadLocal<>();

    /** By the languages that were asked for, and how numbers were written then: reading a bundle and its patterns takes time. */
    private static final Map<List<Locale>, Spoken> KNOWN = new ConcurrentHashMap<>();

    private static volatile Spoken spoken = Spoken.in(ofSystem());

    private Words() {}

    /** Looks for the bundles that there are alone: each further one would be searched for in every library on the class path. */
    private static final class OurBundles extends ResourceBundle.Control {
        @Override
        public List<String> getFormats(String baseName) {
            return FORMAT_PROPERTIES;
        }

        @Override
        public List<Locale> getCandidateLocales(String baseName, Locale locale) {
            return super.getCandidateLocales(baseName, locale).stream()
                    .filter(BUNDLES::contains)
                    .toList();
        }

        @Override
        public @Nullable ResourceBundle newBundle(
                String baseName, Locale locale, String format, ClassLoader loader, boolean reload) throws IOException {
            String file = toResourceName(toBundleName(baseName, locale), "properties");
            try (InputStream in = loader.getResourceAsStream(file)) {
                return in == null ? null : new SortedMessages(in.readAllBytes());
            }
        }

        /** None: who chose English, or has a system in a language without words, gets no German from elsewhere. */
        @Override
        public @Nullable Locale getFallbackLocale(String baseName, Locale locale) {
            return null;
        }
    }

    /** A language: its words, and how numbers and dates are written in it. */
    private record Spoken(ResourceBundle words, Locale locale, Map<String, MessageFormat> patterns) {
        static Spoken in(Locale wanted) {
            return KNOWN.computeIfAbsent(
                    List.of(wanted, Locale.getDefault(Locale.Category.FORMAT)), known -> read(wanted));
        }

        private static Spoken read(Locale wanted) {
            boolean known = LANGUAGES.stream().anyMatch(l -> l.getLanguage().equals(wanted.getLanguage()));
            Locale language = known ? wanted : Locale.ENGLISH;
            Locale formats = Locale.getDefault(Locale.Category.FORMAT);
            // Of a system in another language the words would be ours and the names of its days not.
            Locale locale = formats.getLanguage().equals(language.getLanguage()) ? formats : language;
            return new Spoken(
                    ResourceBundle.getBundle(NAME, known ? wanted : Locale.ROOT, OURS),
                    locale,
                    new ConcurrentHashMap<>());
        }

        /** One of its own for whoever asks: a format cannot be used by two at a time. */
        MessageFormat pattern(String key) {
            return (MessageFormat) patterns.computeIfAbsent(key, k -> new MessageFormat(words.getString(k), locale))
                    .clone();
        }
    }

    /** From now on all words are in this language, or in English where there are none in it. */
    public static void use(Locale language) {
        spoken = Spoken.in(language);
    }

    /** From now on all words are in the language with this tag, such as {@code de}; without one in that of the system. */
    public static void use(@Nullable String tag) {
        use(tag == null ? ofSystem() : Locale.forLanguageTag(tag));
    }

    private static Locale ofSystem() {
        String asked = System.getProperty(PROPERTY, "");
        return asked.isEmpty() ? OF_SYSTEM : Locale.forLanguageTag(asked);
    }

    /** What has a new process of Java say its words in the language of this one. */
    public static String languageFlag() {
        return "-D" + PROPERTY + "=" + spoken.words().getLocale().toLanguageTag();
    }

    /** The language of the words, and the country whose way of writing numbers and dates goes with it. */
    public static Locale locale() {
        return spoken().locale();
    }

    /** All words in the language that is used. */
    public static ResourceBundle bundle() {
        return spoken().words();
    }

    /** The words for a key that has no places, as they stand in the bundle: an apostrophe there is one. */
    public static String plain(String key) {
        return spoken().words().getString(key);
    }

    /**
     * The same words in all languages, to be stored and told later by {@link #told}, whoever asks then.
     *
     * @param words says it in the language that is used on its thread while it runs
     */
    public static String inAll(Supplier<String> words) {
        StringBuilder all = new StringBuilder();
        try {
            for (Locale language : LANGUAGES) {
                HERE.set(Spoken.in(language));
                all.append(BEGINS).append(language.toLanguageTag()).append(SAYS).append(words.get());
            }
        } finally {
            HERE.remove();
        }
        return all.toString();
    }

    /** What {@link #inAll} stored, in the language that is used; anything else as it is. */
    public static String told(String stored) {
        if (!stored.startsWith(BEGINS)) {
            return stored;
        }
        String first = "";
        for (String each : stored.substring(1).split(BEGINS)) {
            int says = each.indexOf(SAYS);
            String words = each.substring(says + 1);
            if (each.substring(0, Math.max(0, says)).equals(spoken().locale().getLanguage())) {
                return words;
            }
            first = first.isEmpty() ? words : first;
        }
        return first;
    }

    /** What {@link #inAll} stored, in each language. */
    public static List<String> each(String stored) {
        return Stream.of(stored.substring(1).split(BEGINS))
                .map(one -> one.substring(one.indexOf(SAYS) + 1))
                .toList();
    }

    private static Spoken spoken() {
        Spoken here = HERE.get();
        return here == null ? spoken : here;
    }

    /** What people may type for a key, whose words have commas between them: in their language, and in English anywhere. */
    public static Set<String> typed(String key) {
        Set<String> all = new TreeSet<>();
        lists(key).forEach(all::addAll);
        return all;
    }

    /** The same as lists in their order, that of the user's language first. */
    public static List<List<String>> lists(String key) {
        return Stream.of(spoken().words(), ENGLISH)
                .map(words -> List.of(words.getString(key).split(",")))
                .toList();
    }

    /**
     * The words for a key, with its places filled.
     *
     * @throws IllegalArgumentException when the key is missing; that is a defect, and a test looks for it
     */
    public static String of(String key, @Nullable Object... arguments) {
        Spoken now = spoken();
        try {
            return oneStop(now.pattern(key).format(arguments));
        } catch (MissingResourceException e) {
            throw new IllegalArgumentException("expected words for the key '" + key + "', found none", e);
        }
    }

    /** A sentence that ends with an abbreviation, as that of a German month, ends with one full stop. */
    private static String oneStop(String words) {
        int at = words.indexOf("..");
        boolean twice = at > 0
                && Character.isLetter(words.charAt(at - 1))
                && (at + 2 == words.length() || words.charAt(at + 2) == ' ');
        return twice ? words.substring(0, at) + words.substring(at + 1) : words;
    }
}

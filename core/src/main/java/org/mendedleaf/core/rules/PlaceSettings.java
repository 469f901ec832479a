package org.mendedleaf.core.rules;

import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.words.Words;

/**
 * How a place is set: a protected folder, or a place in another system.
 *
 * <pre>{@code
 * SystemKind.OBJECT_STORE.standardSettings().with(Setting.VERSIONING, "paused")
 * }</pre>
 *
 * @param values by setting; those that its kind of place has, all of them
 * @param members who can see it besides the one who made it; empty where there are none
 */
public record PlaceSettings(Map<Setting, String> values, List<Member> members) {

    /** Copies. */
    public PlaceSettings {
        Map<Setting, String> copy = new EnumMap<>(Setting.class);
        copy.putAll(values);
        values = Collections.unmodifiableMap(copy);
        members = List.copyOf(members);
    }

    /** What a new place with these settings is set to. */
    public static PlaceSettings standard(List<Setting> settings) {
        Map<Setting, String> values = new EnumMap<>(Setting.class);
        settings.forEach(s -> values.put(s, s.standard()));
        return new PlaceSettings(values, List.of());
    }

    /** The value of a setting; its standard when it is not among these. */
    public String get(Setting setting) {
        return values.getOrDefault(setting, setting.standard());
    }

    /** The value of a number. */
    public long number(Setting setting) {
        return Long.parseLong(get(setting));
    }

    /**
     * The same with one value changed.
     *
     * @throws IllegalArgumentException with a message for the user, when a place of this kind has no such setting or it cannot be that
     */
    public PlaceSettings with(Setting setting, String value) {
        if (!values.containsKey(setting)) {
            throw new IllegalArgumentException(
                    Words.of("setting.notHere", setting.text(), Setting.names(values.keySet())));
        }
        Map<Setting, String> changed = new EnumMap<>(values);
        changed.put(setting, setting.check(value));
        return new PlaceSettings(changed, members);
    }

    /** The same with other members. */
    public PlaceSettings with(List<Member> others) {
        return new PlaceSettings(values, others);
    }
}

package org.mendedleaf.core.systems;

import static org.mendedleaf.core.systems.Capability.CAPACITY;
import static org.mendedleaf.core.systems.Capability.CHECK_OUT;
import static org.mendedleaf.core.systems.Capability.DELETION_POINTS;
import static org.mendedleaf.core.systems.Capability.DRAFTS;
import static org.mendedleaf.core.systems.Capability.ERASING;
import static org.mendedleaf.core.systems.Capability.MEMBERS;
import static org.mendedleaf.core.systems.Capability.NOTES;
import static org.mendedleaf.core.systems.Capability.PAUSING;
import static org.mendedleaf.core.systems.Capability.SCHEDULES;
import static org.mendedleaf.core.systems.Capability.SNAPSHOTS;
import static org.mendedleaf.core.systems.Capability.UNPLUGGING;
import static org.mendedleaf.core.systems.Capability.VERSIONS;
import static org.mendedleaf.core.systems.Capability.WRITING;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.words.Words;

/** The kinds of systems, nearest first. */
public enum SystemKind {
    /** A drive that is beside the computer while it is plugged in; takes backup runs. */
    BACKUP_DRIVE(
            Set.of(SNAPSHOTS, SCHEDULES, CAPACITY, UNPLUGGING), List.of(Setting.BACKUP_EVERY, Setting.BACKUP_KEEP)),
    /** A server in the house with shared folders and read-only snapshots of them. */
    FILE_SERVER(
            Set.of(SNAPSHOTS, SCHEDULES, CAPACITY, WRITING), List.of(Setting.SNAPSHOT_EVERY, Setting.SNAPSHOT_KEEP)),
    /** A library of documents with versions, drafts, check-out, members. */
    LIBRARY(
            Set.of(VERSIONS, DRAFTS, CHECK_OUT, NOTES, MEMBERS, DELETION_POINTS, ERASING, CAPACITY, WRITING),
            List.of(
                    Setting.VERSIONING,
                    Setting.NUMBERING,
                    Setting.KEEP_VERSIONS,
                    Setting.KEEP_DRAFTS_OF,
                    Setting.DRAFTS_SEEN_BY,
                    Setting.CHECK_OUT,
                    Setting.REMOVED_DAYS,
                    Setting.QUOTA_MB)),
    /** A plain WebDAV server (RFC 4918); it keeps no versions, the vault does. */
    WEBDAV(Set.of(WRITING), List.of()),
    /** A store of objects in containers, with versions by id. */
    OBJECT_STORE(
            Set.of(VERSIONS, PAUSING, NOTES, DELETION_POINTS, ERASING, WRITING),
            List.of(Setting.VERSIONING, Setting.EXPIRE_DAYS, Setting.EXPIRE_KEEP));

    private final Set<Capability> capabilities;
    private final List<Setting> settings;

    SystemKind(Set<Capability> capabilities, List<Setting> settings) {
        this.capabilities = capabilities;
        this.settings = settings;
    }

    /** What systems of this kind can do. */
    public Set<Capability> capabilities() {
        return capabilities;
    }

    /** Whether systems of this kind can do this. */
    public boolean can(Capability capability) {
        return capabilities.contains(capability);
    }

    /** The settings that a place in such a system has, in the order in which they are shown. */
    public List<Setting> settings() {
        return settings;
    }

    /** What a new place in such a system is set to. */
    public PlaceSettings standardSettings() {
        return PlaceSettings.standard(settings);
    }

    /** What can be chosen for a setting in systems of this kind. */
    public List<String> choices(Setting setting) {
        return setting == Setting.VERSIONING && !can(PAUSING)
                ? setting.choices().stream().filter(c -> !c.equals("paused")).toList()
                : setting.choices();
    }

    /** Whether the past is kept in cuts of the whole place, rather than file by file. */
    public boolean keepsCuts() {
        return can(SNAPSHOTS);
    }

    /** How it is written on the command line. */
    public String text() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /**
     * Reads what {@link #text} wrote.
     *
     * @throws IllegalArgumentException with a message for the user
     */
    public static SystemKind parse(String text) {
        for (SystemKind kind : values()) {
            if (kind.text().equals(text)) {
                return kind;
            }
        }
        throw new IllegalArgumentException(Words.of("system.kind.unknown", text));
    }
}

package org.mendedleaf.desktop.protection;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.Permission;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/** How a protected folder is worked with and by whom, without its scene. What is chosen holds at once. */
public final class FolderRulesModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final ReadOnlyObjectWrapper<@Nullable PlaceRules> rules = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /** Begins to read what counts in this folder. */
    public FolderRulesModel(AppContext context, OpenPlace openPlace) {
        this.context = context;
        this.openPlace = openPlace;
        load();
    }

    private void load() {
        context.background()
                .run(
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                return PlaceRules.of(reading, openPlace.place());
                            }
                        },
                        rules::set,
                        e -> problem.set(Failures.words(e)));
    }

    /** The rules; null while they are read. */
    public ReadOnlyObjectProperty<@Nullable PlaceRules> rulesProperty() {
        return rules.getReadOnlyProperty();
    }

    /** What went wrong, as a message; empty when nothing did. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Whether who works here may change them. */
    public boolean mayChange() {
        PlaceRules r = rules.get();
        return r != null
                && r.rights(context.settings().who(), openPlace.place()).may(Permission.SETTINGS);
    }

    /** Changes a setting. */
    public void change(Setting setting, String value) {
        PlaceRules r = rules.get();
        if (r == null || r.settings().get(setting).equals(value)) {
            return;
        }
        try {
            store(r, r.settings().with(setting, value));
        } catch (IllegalArgumentException e) {
            problem.set(Failures.named(e));
        }
    }

    /** Gives somebody a role, or takes them out with none. */
    public void member(String who, @Nullable Role role) {
        PlaceRules r = rules.get();
        if (r == null || who.isBlank()) {
            return;
        }
        List<Member> members = new ArrayList<>(r.settings().members());
        members.removeIf(m -> m.who().equals(who.strip()));
        if (role != null) {
            members.add(new Member(who.strip(), role));
        }
        store(r, r.settings().with(members));
    }

    private void store(PlaceRules before, PlaceSettings wanted) {
        problem.set("");
        context.background()
                .run(
                        () -> {
                            try (WriteSession session = openPlace.vault().write()) {
                                before.store(
                                        session,
                                        openPlace.place(),
                                        wanted,
                                        context.clock().instant(),
                                        context.settings().who());
                                session.commit();
                            }
                            return true;
                        },
                        ok -> {
                            load();
                            if (wanted.get(Setting.VERSIONING)
                                    .equals(before.settings().get(Setting.VERSIONING))) {
                                context.changed();
                            } else {
                                versioningChanged(Versioning.ON.text().equals(wanted.get(Setting.VERSIONING)));
                            }
                        },
                        e -> {
                            problem.set(Failures.words(e));
                            load();
                        });
    }

    /** What goes on again is captured at once, and it is said what nobody kept meanwhile. */
    private void versioningChanged(boolean goesOn) {
        if (!goesOn) {
            context.placesChanged();
            return;
        }
        context.background()
                .run(
                        () -> {
                            try (Reading reading = openPlace.vault().read()) {
                                return reading.state(openPlace.place())
                                        .lastGood()
                                        .orElse(openPlace.place().created());
                            }
                        },
                        last -> {
                            OpenPlace again = new OpenPlace(
                                    openPlace.vault(), openPlace.place().with(Versioning.ON));
                            context.captures().captureAgain(again, result -> {
                                context.placesChanged();
                                context.tell(Protect.missed(
                                        last, context.clock().instant(), context.zone(), result.points()));
                            });
                        },
                        e -> problem.set(Failures.words(e)));
    }
}

package org.mendedleaf.desktop.protection;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.systems.PlainHttp;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;

/** Connecting a system, and making a place in one, without the scene. */
public final class ConnectModel {

    private final AppContext context;
    private final StringProperty name = new SimpleStringProperty("");
    private final StringProperty address = new SimpleStringProperty("");
    private final StringProperty token = new SimpleStringProperty("");
    private final BooleanProperty plain = new SimpleBooleanProperty();
    private final ReadOnlyStringWrapper shown = new ReadOnlyStringWrapper("");
    private final BooleanProperty trusted = new SimpleBooleanProperty();
    private final StringProperty place = new SimpleStringProperty("");
    private final StringProperty members = new SimpleStringProperty("");
    private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
    private final BooleanProperty busy = new SimpleBooleanProperty();
    private final Map<Setting, String> settings = new EnumMap<>(Setting.class);

    ConnectModel(AppContext context) {
        this.context = context;
        // Another address has another certificate.
        address.addListener((o, a, b) -> {
            trusted.set(false);
            shown.set("");
        });
    }

    /** What the user calls the connection. */
    public StringProperty nameProperty() {
        return name;
    }

    /** Where it is reached. */
    public StringProperty addressProperty() {
        return address;
    }

    /** The token by which it knows us. */
    public StringProperty tokenProperty() {
        return token;
    }

    /** The name of a new place. */
    public StringProperty placeProperty() {
        return place;
    }

    /** Members of a new place, as {@code who, who=reader}; an editor unless said otherwise. */
    public StringProperty membersProperty() {
        return members;
    }

    /** What is wrong; empty when nothing is. */
    public ReadOnlyStringProperty problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Whether the system is being asked. */
    public BooleanProperty busyProperty() {
        return busy;
    }

    /** Whether what is sent to the address could be read by others on its way. */
    public boolean isPlain() {
        return PlainHttp.isReadableOnTheWay(address.get());
    }

    /** Whether that was chosen all the same. */
    public BooleanProperty plainProperty() {
        return plain;
    }

    /** The fingerprint of a certificate that is not trusted, which the address showed; empty when there is none. */
    public ReadOnlyStringProperty certificateProperty() {
        return shown.getReadOnlyProperty();
    }

    /** Whether that certificate was compared, and is trusted. */
    public BooleanProperty trustedProperty() {
        return trusted;
    }

    private Endpoint endpoint() {
        Endpoint at = new Endpoint(address.get().strip(), token.get().strip());
        return trusted.get() ? at.trusting(shown.get()) : at;
    }

    /** Asks the system what it is and takes its places in. */
    public void connect(Runnable done) {
        Optional<OpenVault> vault = context.vaults().values().stream().findFirst();
        if (vault.isEmpty()) {
            problem.set(Words.of("connect.noVault"));
            return;
        }
        if (isPlain() && !plain.get()) {
            problem.set(Words.of("connect.plain", address.get().strip()));
            return;
        }
        problem.set("");
        busy.set(true);
        SystemConnector connecting = context.connecting();
        String called = name.get().strip();
        Endpoint at = endpoint();
        context.jobs()
                .start(
                        Words.of("job.connect", name.get()),
                        progress -> {
                            Connection c = connecting.connect(called, null, at, vault.get(), Retry.DEFAULT);
                            for (Place p : connecting.takeIn(c, vault.get())) {
                                new Mirror(vault.get(), p, context.registry().system(p), context.clock()).run(progress);
                            }
                            return c;
                        },
                        c -> {
                            busy.set(false);
                            context.placesChanged();
                            done.run();
                        },
                        this::failed);
    }

    /** A fingerprint is compared pair by pair: none is broken at the end of a line. */
    private static String inTwoLines(String words, String fingerprint) {
        int half = fingerprint.length() / 2;
        return words.replace(
                fingerprint, "\n" + fingerprint.substring(0, half + 1) + "\n" + fingerprint.substring(half + 1));
    }

    private void failed(Exception e) {
        busy.set(false);
        boolean untrusted = e instanceof SystemException.Untrusted;
        String fingerprint = e instanceof SystemException.Untrusted u ? u.fingerprint() : shown.get();
        if (untrusted && !fingerprint.equals(shown.get())) {
            // What was trusted was another one.
            trusted.set(false);
        }
        shown.set(fingerprint);
        problem.set(untrusted ? inTwoLines(Failures.words(e), fingerprint) : Failures.words(e));
        context.placesChanged();
    }

    /** Chooses a setting of the new place. */
    void choose(Setting setting, String value) {
        settings.put(setting, value);
    }

    private PlaceSettings wanted(Connection c) {
        PlaceSettings wanted = c.kind().standardSettings();
        for (Map.Entry<Setting, String> e : settings.entrySet()) {
            wanted = wanted.with(e.getKey(), e.getValue());
        }
        List<Member> list = new ArrayList<>();
        for (String each : members.get().split(",")) {
            String[] parts = each.strip().split("=", 2);
            if (!parts[0].isBlank()) {
                list.add(new Member(parts[0].strip(), parts.length == 1 ? Role.EDITOR : Role.parse(parts[1].strip())));
            }
        }
        return wanted.with(list);
    }

    /** What the new place will be like, a sentence each, and who can see it. */
    List<String> outlook(Connection c) {
        try {
            PlaceSettings wanted = wanted(c);
            List<String> words = new ArrayList<>(Outlook.effects(c.kind(), wanted));
            words.add(
                    wanted.members().isEmpty()
                            ? Words.of("place.private")
                            : Words.of(
                                    "place.seenBy",
                                    String.join(
                                            ", ",
                                            wanted.members().stream()
                                                    .map(m -> m.who() + " ("
                                                            + Words.of("role."
                                                                    + m.role().text()) + ")")
                                                    .toList())));
            problem.set("");
            return words;
        } catch (IllegalArgumentException e) {
            problem.set(Failures.named(e));
            return List.of();
        }
    }

    /** Makes the place. */
    public void create(Connection c, Runnable done) {
        OpenVault vault = context.vaults().get(c.vault());
        if (vault == null) {
            problem.set(Words.of("connect.noVault"));
            return;
        }
        PlaceSettings wanted;
        try {
            wanted = wanted(c);
        } catch (IllegalArgumentException e) {
            problem.set(Failures.named(e));
            return;
        }
        problem.set("");
        busy.set(true);
        context.jobs()
                .start(
                        Words.of("job.create", place.get()),
                        progress -> {
                            Place p = context.connecting().create(c, place.get().strip(), wanted, vault);
                            new Mirror(vault, p, context.registry().system(p), context.clock()).run(Progress.NONE);
                            return p;
                        },
                        p -> {
                            busy.set(false);
                            context.placesChanged();
                            done.run();
                        },
                        this::failed);
    }
}

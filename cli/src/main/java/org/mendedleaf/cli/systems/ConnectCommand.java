package org.mendedleaf.cli.systems;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.PlainHttp;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Connects another system. */
@Command(name = "connect", description = "${bundle:cli.connect}")
public final class ConnectCommand extends Base {

    /** No token is as long. Bytes. */
    private static final int MOST = 1 << 16;

    @Parameters(index = "0", paramLabel = "NAME", descriptionKey = "cli.connect.name")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", paramLabel = "ADDRESS", descriptionKey = "cli.connect.address")
    @SuppressWarnings("NullAway.Init")
    String address;

    @Option(names = "--token", paramLabel = "TOKEN", descriptionKey = "cli.connect.token")
    @Nullable
    String token;

    @Option(names = "--token-file", paramLabel = "FILE", descriptionKey = "cli.connect.tokenFile")
    @Nullable
    Path tokenFile;

    @Option(names = "--plain-http", descriptionKey = "cli.connect.plainHttp")
    boolean plainHttp;

    @Option(names = "--certificate", paramLabel = "FINGERPRINT", descriptionKey = "cli.connect.certificate")
    @Nullable
    String certificate;

    @Option(names = "--kind", paramLabel = "KIND", descriptionKey = "cli.connect.kind")
    @Nullable
    String kind;

    public ConnectCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (token != null && tokenFile != null) {
            throw new IllegalArgumentException(Words.of("cli.connect.tokenTwice"));
        }
        if (!plainHttp && PlainHttp.isReadableOnTheWay(address)) {
            throw new IllegalArgumentException(
                    Words.of("connect.plain", address) + " " + Words.of("cli.connect.plain"));
        }
        Endpoint at = new Endpoint(address, given());
        if (certificate != null) {
            at = at.trusting(Endpoint.parseFingerprint(certificate));
        }
        Path vaultFolder = Protect.realOfNew(vaults().get(0));
        SystemKind known = kind == null ? null : SystemKind.parse(kind);
        try (OpenVault open = openOrCreate(vaultFolder, null)) {
            settings().addVault(open.folder().root());
            SystemConnector connecting = new SystemConnector(settings(), registry(), clock());
            Connection c = connect(connecting, known, at, open);
            List<Place> places = connecting.takeIn(c, open);
            for (Place place : places) {
                try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                    new Mirror(open, place, registry().system(place), clock()).run(progress);
                }
            }
            if (json) {
                printJson(Map.of(
                        "name", c.name(),
                        "kind", c.kind().text(),
                        "places", places.stream().map(Place::where).toList()));
            } else {
                say(
                        "cli.connect.done",
                        c.name(),
                        Words.of("system.kind." + c.kind().text()),
                        places.size());
                places.forEach(p -> line("  " + p.where()));
                if (!c.keyring().isEmpty()) {
                    say("cli.connect.keyring");
                }
            }
            return ExitCodes.DONE;
        }
    }

    /** The token that was given: on the command line, in a file, or piped in; empty for none. */
    private String given() throws IOException {
        String typed = token;
        if (typed != null) {
            if (!typed.isEmpty()) {
                complain(Words.of("cli.connect.tokenSeen"));
            }
            return typed;
        }
        Path file = tokenFile;
        if (file == null) {
            return "";
        }
        byte[] bytes = file.toString().equals("-") ? surroundings.rawIn().readNBytes(MOST) : Files.readAllBytes(file);
        String all = new String(bytes, StandardCharsets.UTF_8).strip();
        if (all.isEmpty() || all.lines().count() > 1) {
            throw new IllegalArgumentException(Words.of("cli.connect.noToken", file));
        }
        return all;
    }

    /**
     * Connects. Where a token is asked for and none was given, or where the certificate is not trusted, somebody at the terminal
     * is asked.
     */
    private Connection connect(SystemConnector connecting, @Nullable SystemKind kind, Endpoint at, OpenVault open)
            throws IOException {
        try {
            return connecting.connect(name, kind, at, open, Retry.DEFAULT);
        } catch (SystemException.Refused e) {
            Optional<String> typed = at.token().isEmpty()
                    ? surroundings.secret(Words.of("cli.connect.askToken", name))
                    : Optional.empty();
            if (typed.isEmpty()) {
                throw e;
            }
            return connect(connecting, kind, at.with(typed.get()), open);
        } catch (SystemException.Untrusted e) {
            if (!at.certificate().isEmpty()) {
                throw e;
            }
            if (!surroundings.confirms(Words.of("cli.connect.askTrust", e.words()))) {
                throw new SystemException.Untrusted(
                        e.words() + ". " + Words.of("cli.connect.untrusted", e.fingerprint()), e.fingerprint(), e);
            }
            return connect(connecting, kind, at.trusting(e.fingerprint()), open);
        }
    }
}

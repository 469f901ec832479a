package org.mendedleaf.core.systems.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.standins.StandIns;
import org.mendedleaf.standins.TlsFront;

/** A system is known by its certificate: nothing goes to one that is not, until it was chosen by its fingerprint. */
class TrustTest {

    /** So long that trying again would be seen. */
    private static final Retry SLOW =
            new Retry(5, Duration.ofSeconds(20), Duration.ofSeconds(30), Duration.ofSeconds(20));

    @TempDir
    Path temp;

    private StandIns outside;

    private static SystemException.Untrusted refused(Endpoint at) {
        return catchThrowableOfType(SystemException.Untrusted.class, () -> Systems.kindOf("Library", at, SLOW));
    }

    @BeforeEach
    void outside() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "ines");
    }

    @AfterEach
    void close() throws IOException {
        outside.close();
    }

    private TlsFront front(String name, int port, String... validity) throws IOException {
        return new TlsFront(outside.library().address(), name, port, validity);
    }

    private Endpoint at(TlsFront front) {
        return new Endpoint(front.address(), outside.library().token("ines"));
    }

    private static void isKnown(Endpoint at) throws IOException {
        assertThat(Systems.kindOf("Library", at, SLOW)).isEqualTo(SystemKind.LIBRARY);
        assertThat(Systems.open("Library", SystemKind.LIBRARY, at, SLOW, Clock.systemUTC())
                        .state())
                .isNotNull();
    }

    @Test
    void aCertificateThatNobodySignedIsShownAndCountsOnceItIsChosen() throws Exception {
        try (TlsFront front = front("localhost", 0)) {
            long start = System.nanoTime();
            SystemException.Untrusted e = refused(at(front));
            assertThat(Duration.ofNanos(System.nanoTime() - start))
                    .as("it is not asked again")
                    .isLessThan(SLOW.first());
            assertThat(e.fingerprint()).isEqualTo(front.fingerprint());
            assertThat(e.words())
                    .contains("Library", front.fingerprint(), "CN=localhost")
                    .contains("nobody whom this computer trusts");
            isKnown(at(front).trusting(e.fingerprint()));
        }
    }

    @Test
    void aCertificateThatWasChosenCountsForWhateverNameAndTimeItIs() throws Exception {
        try (TlsFront front = front("nas.example", 0, "-startdate", "-10d", "-validity", "1")) {
            assertThat(refused(at(front)).words()).contains("does not count at this time");
            isKnown(at(front).trusting(front.fingerprint()));
        }
    }

    @Test
    void anotherCertificateThanTheChosenOneIsRefused() throws Exception {
        int port;
        Endpoint before;
        try (TlsFront front = front("localhost", 0)) {
            port = front.port();
            before = at(front).trusting(front.fingerprint());
        }
        try (TlsFront other = front("localhost", port)) {
            SystemException.Untrusted e = refused(before);
            assertThat(e.words()).contains("another certificate than the one that was chosen");
            assertThat(e.fingerprint()).isEqualTo(other.fingerprint()).isNotEqualTo(before.certificate());
        }
    }

    @Test
    void aFingerprintIsReadAsPeopleWriteIt() {
        byte[] digest = new byte[32];
        digest[0] = (byte) 0xab;
        String written = Endpoint.fingerprint(digest);
        assertThat(written).startsWith("AB:00:").hasSize(32 * 3 - 1);
        assertThat(Endpoint.parseFingerprint(written)).isEqualTo(written);
        assertThat(Endpoint.parseFingerprint(written.replace(":", "").toLowerCase(Locale.ROOT)))
                .isEqualTo(written);
        assertThat(Endpoint.parseFingerprint(" SHA256:" + written.replace(":", " ")))
                .isEqualTo(written);
        assertThat(Endpoint.parseFingerprint("sha-256=" + written)).isEqualTo(written);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "AB", "xyz", "AB:CD:EF", "sha256:"})
    void whatIsNoFingerprintIsRefused(String typed) {
        assertThatThrownBy(() -> Endpoint.parseFingerprint(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("64 hexadecimal digits");
    }
}

package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.intake.Judgement.Aspect;
import org.mendedleaf.core.intake.Judgement.Outcome;
import org.mendedleaf.core.vault.Digest;

/** The guard without files: each of its reasons, at the limit from which on it counts. */
class GuardLimitsTest {

    private static final Instant SAVED = Instant.parse("2026-05-04T08:00:00Z");
    private static final Instant NOW = SAVED.plus(Duration.ofDays(1));

    private final Map<Digest, Guard.Earlier> older = new HashMap<>();
    private final Map<String, Features> neighbours = new HashMap<>();
    private Optional<String> newestOf = Optional.empty();
    private Instant modified = NOW;

    private static byte[] text(int from, int to) {
        return IntStream.range(from, to)
                .mapToObj(i -> "sentence number " + i + " says word" + (i * 7919) + " and word" + (i * 104729) + ".")
                .collect(Collectors.joining("\n"))
                .getBytes(StandardCharsets.UTF_8);
    }

    private static Features features(byte[] content) {
        return Features.of("a.txt", content);
    }

    private Judgement judge(byte[] incoming, byte[] current) {
        Guard.Target target = new Guard.Target(
                "lease.txt",
                Optional.ofNullable(current).map(GuardLimitsTest::features),
                current == null ? 0 : 3,
                current == null ? "" : "3",
                SAVED,
                older,
                neighbours,
                newestOf);
        return Guard.judge(new Guard.Question("in.txt", features(incoming), modified, target), NOW, ZoneOffset.UTC);
    }

    @Test
    void theSameContentIsSureWhateverElseIsSo() {
        modified = SAVED.minus(Duration.ofDays(9));
        Judgement j = judge(text(0, 50), text(0, 50));
        assertThat(j.outcome()).isEqualTo(Outcome.SURE);
        assertThat(j.shared()).isEqualTo(100);
        assertThat(j.identicalTo()).isEqualTo(3);
    }

    @Test
    void nothingInTheFileIsUnlikelyUnlessThereWasNothing() {
        assertThat(judge(new byte[0], text(0, 50)).outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(judge(new byte[0], null).outcome()).isEqualTo(Outcome.LOOK);
        assertThat(judge(new byte[0], null).isAgainst(Aspect.EMPTY)).isFalse();
        assertThat(judge(new byte[0], text(0, 50)).isAgainst(Aspect.EMPTY)).isTrue();
    }

    @Test
    void anEarlierVersionIsNamed() {
        older.put(features(text(0, 40)).scan().digest(), new Guard.Earlier(2, "2"));
        Judgement j = judge(text(0, 40), text(0, 50));
        assertThat(j.outcome()).isEqualTo(Outcome.LOOK);
        assertThat(j.identicalTo()).isEqualTo(2);
        assertThat(j.shared()).isBetween(60, 99);
        assertThat(judge(text(0, 40), null).shared())
                .as("nothing to compare with")
                .isEqualTo(-1);
    }

    @Test
    void anotherFilesNewestVersionIsUnlikelyToBelongHere() {
        newestOf = Optional.of("other.txt");
        Judgement j = judge(text(0, 49), text(0, 50));
        assertThat(j.outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(j.belongsTo()).contains("other.txt");
        assertThat(judge(text(0, 49), null).outcome()).isEqualTo(Outcome.LOOK);
    }

    @Test
    void aNewFileIsSureWhenItIsWhatItsNameSays() {
        assertThat(judge(text(0, 50), null).outcome()).isEqualTo(Outcome.SURE);
        assertThat(judge("%PDF-1.4\n%%EOF".getBytes(StandardCharsets.UTF_8), null)
                        .outcome())
                .as("a PDF under the name of a text")
                .isEqualTo(Outcome.LOOK);
    }

    @ParameterizedTest
    @CsvSource({"119, false", "120, false", "121, true"})
    void whatIsOlderThanTwoMinutesBeforeTheLastSaveIsOlder(long seconds, boolean against) {
        modified = SAVED.minusSeconds(seconds);
        Judgement j = judge(text(0, 49), text(0, 50));
        assertThat(j.isAgainst(Aspect.AGE)).isEqualTo(against);
        assertThat(j.outcome()).isEqualTo(against ? Outcome.LOOK : Outcome.SURE);
    }

    @Test
    void lessThanAQuarterOfTheSizeIsSuddenlySmall() {
        byte[] current = text(0, 100);
        Judgement small = judge(java.util.Arrays.copyOf(current, current.length / 4 - 40), current);
        assertThat(small.isAgainst(Aspect.SIZE)).isTrue();
        assertThat(small.outcome()).isNotEqualTo(Outcome.SURE);
        assertThat(judge(java.util.Arrays.copyOf(current, current.length / 4 + 40), current)
                        .isAgainst(Aspect.SIZE))
                .isFalse();
    }

    @Test
    void whatIsAgainstStandsFirst() {
        modified = SAVED.minus(Duration.ofDays(9));
        List<Judgement.Reason> reasons = judge(text(0, 49), text(0, 50)).reasons();
        assertThat(reasons).hasSizeGreaterThan(1);
        assertThat(reasons.get(0).against()).isTrue();
        assertThat(reasons.get(reasons.size() - 1).against()).isFalse();
    }

    @Test
    void howMuchIsInCommonDecides() {
        assertThat(judge(text(0, 50), text(10, 50)).outcome()).isEqualTo(Outcome.SURE);
        assertThat(judge(text(1000, 1050), text(0, 50)).outcome()).isEqualTo(Outcome.UNLIKELY);
        assertThat(judge(text(1000, 1050), text(0, 50)).isAgainst(Aspect.COMMON))
                .isTrue();
        assertThat(judge(text(0, 50), text(10, 50)).isAgainst(Aspect.COMMON)).isFalse();
    }

    @Test
    void aNeighbourThatIsNearerIsNamed() {
        neighbours.put("near.txt", features(text(900, 960)));
        neighbours.put("far.txt", features(text(5000, 5060)));
        Judgement j = judge(text(900, 961), text(0, 50));
        assertThat(j.isAgainst(Aspect.NEARER)).isTrue();
        assertThat(j.belongsTo()).contains("near.txt");
        assertThat(judge(text(0, 51), text(0, 50)).isAgainst(Aspect.NEARER)).isFalse();
    }

    @Test
    void ofTinyContentsNobodyIsBothered() {
        byte[] tiny = "a b".getBytes(StandardCharsets.UTF_8);
        assertThat(judge(tiny, "c d".getBytes(StandardCharsets.UTF_8)).outcome())
                .isEqualTo(Outcome.SURE);
        byte[] noise = new byte[400];
        new java.util.Random(3).nextBytes(noise);
        noise[0] = 1;
        byte[] other = new byte[400];
        new java.util.Random(4).nextBytes(other);
        other[0] = 1;
        Judgement j = judge(noise, other);
        assertThat(j.outcome()).isNotEqualTo(Outcome.SURE);
        assertThat(j.isAgainst(Aspect.COMMON)).isTrue();
        assertThat(j.shared()).isEqualTo(-1);
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "0.004, 0", "0.005, 1", "0.5, 50", "0.994, 99", "1, 99"})
    void onlyWhatIsTheSameHasAllInCommon(double share, int percent) {
        assertThat(Likeness.percent(share, false)).isEqualTo(percent);
        assertThat(Likeness.percent(share, true)).isEqualTo(100);
    }

    @Test
    void whatNeighboursHaveTooSaysNothing() {
        byte[] form = text(0, 40);
        byte[] mine = join(form, text(100, 103));
        byte[] theirs = join(form, text(200, 203));
        double alone = Likeness.of(features(theirs), features(mine), List.of()).orElseThrow();
        double beside = Likeness.of(features(theirs), features(mine), List.of(features(join(form, text(300, 303)))))
                .orElseThrow();
        assertThat(alone).isGreaterThan(0.5);
        assertThat(beside).isLessThan(0.2);
        byte[] edited = join(form, text(100, 104));
        assertThat(Likeness.of(features(edited), features(mine), List.of(features(theirs)))
                        .orElseThrow())
                .isGreaterThan(0.5);
    }

    private static byte[] join(byte[] a, byte[] b) {
        return (new String(a, StandardCharsets.UTF_8) + "\n" + new String(b, StandardCharsets.UTF_8))
                .getBytes(StandardCharsets.UTF_8);
    }
}

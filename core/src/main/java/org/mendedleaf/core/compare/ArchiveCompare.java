package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.MemberChange;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Member;

/** Compares archives by member: its path, and its checksum where there is one. Pure. */
final class ArchiveCompare {

    private ArchiveCompare() {}

    static Comparison compare(Document.Archive a, Document.Archive b) {
        Map<String, Member> before = new TreeMap<>();
        a.members().forEach(m -> before.putIfAbsent(m.path(), m));
        List<Change> changes = new ArrayList<>();
        List<MemberChange> members = new ArrayList<>();
        List<Member> came = new ArrayList<>();
        for (Member now : b.members()) {
            Member was = before.remove(now.path());
            if (was == null) {
                came.add(now);
            } else if (content(was).equals(content(now))) {
                members.add(new MemberChange(Mark.SAME, Optional.of(was), Optional.of(now), 0));
            } else {
                members.add(change(changes, Mark.CHANGED, Optional.of(was), Optional.of(now)));
            }
        }
        // What is gone here and came there with the same content was moved.
        Map<String, Member> gone = new HashMap<>();
        before.values().stream()
                .filter(m -> !m.folder() && !m.check().isEmpty())
                .forEach(m -> gone.put(content(m), m));
        for (Member now : came) {
            Member was = now.folder() || now.check().isEmpty() ? null : gone.remove(content(now));
            if (was != null) {
                before.remove(was.path());
            }
            members.add(
                    change(changes, was == null ? Mark.ADDED : Mark.MOVED, Optional.ofNullable(was), Optional.of(now)));
        }
        for (Member was : before.values()) {
            members.add(change(changes, Mark.REMOVED, Optional.of(was), Optional.empty()));
        }
        return new Comparison.ArchiveChanges(members, changes);
    }

    private static String content(Member member) {
        return member.size() + " " + member.check() + (member.check().isEmpty() ? " " + member.modified() : "");
    }

    private static MemberChange change(
            List<Change> changes, Mark mark, Optional<Member> before, Optional<Member> after) {
        int number = changes.size() + 1;
        String path = after.or(() -> before).orElseThrow().path();
        changes.add(new Change(
                number,
                mark,
                path,
                before.map(Member::path).orElse(""),
                after.map(Member::path).orElse("")));
        return new MemberChange(mark, before, after, number);
    }
}

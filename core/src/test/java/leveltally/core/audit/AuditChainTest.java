package leveltally.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class AuditChainTest {
    private static List<AuditRecord> trail(int length) {
        List<AuditRecord> trail = new ArrayList<>();
        String head = AuditRecord.ORIGIN;
        for (int i = 1; i <= length; i++) {
            AuditRecord record =
                    new AuditRecord(i, Instant.ofEpochSecond(i, 5_000), 1, "here", "post", "batch " + i, "{}", head);
            trail.add(record);
            head = record.hash();
        }
        return trail;
    }

    private static List<String> walk(List<AuditRecord> trail, List<String> hashes) {
        AuditChain chain = new AuditChain();
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < trail.size(); i++) {
            Optional<String> finding = chain.follow(trail.get(i), hashes.get(i));
            finding.ifPresent(wrong::add);
        }
        return wrong;
    }

    private static List<String> hashes(List<AuditRecord> trail) {
        return new ArrayList<>(trail.stream().map(AuditRecord::hash).toList());
    }

    @Test
    void anUnbrokenTrailIsClean() {
        List<AuditRecord> trail = trail(20);
        assertThat(walk(trail, hashes(trail))).isEmpty();
    }

    @Test
    void findsAnAlteredRecord() {
        List<AuditRecord> trail = trail(5);
        List<String> hashes = hashes(trail);
        AuditRecord was = trail.get(2);
        trail.set(
                2,
                new AuditRecord(
                        3, was.at(), 9, was.from(), was.deed(), was.subject(), was.detail(), was.previousHash()));
        assertThat(walk(trail, hashes)).singleElement().asString().contains("record 3 was altered");
    }

    @Test
    void findsARemovedRecord() {
        List<AuditRecord> trail = trail(5);
        List<String> hashes = hashes(trail);
        trail.remove(2);
        hashes.remove(2);
        assertThat(walk(trail, hashes)).singleElement().asString().contains("record 3 is missing");
    }

    @Test
    void neighbouringFieldsCannotTradeCharacters() {
        Instant at = Instant.EPOCH;
        AuditRecord a = new AuditRecord(1, at, 1, "x", "ab", "c", "{}", AuditRecord.ORIGIN);
        AuditRecord b = new AuditRecord(1, at, 1, "x", "a", "bc", "{}", AuditRecord.ORIGIN);
        assertThat(a.hash()).isNotEqualTo(b.hash());
    }
}

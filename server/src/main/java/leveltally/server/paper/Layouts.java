package leveltally.server.paper;

import java.nio.charset.StandardCharsets;
import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.Sha256;
import leveltally.core.checks.SeriesId;
import leveltally.core.paper.CheckLayout;
import leveltally.core.paper.Finding;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * The layouts of each series, version after version. They are only added: on a day the newest of those that are in force from
 * then or before is printed on, so that a version from today takes the place of an older one whatever day that begins, and
 * the way back is a newer version with an earlier one's content.
 */
@Service
public class Layouts {
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final Series series;
    private final SampleChecks samples;
    private final WorkIds.Supply ids;
    private final AuditTrail audit;

    Layouts(JdbcClient jdbc, JsonMapper json, Series series, SampleChecks samples, WorkIds ids, AuditTrail audit) {
        this.jdbc = jdbc;
        this.json = json;
        this.series = series;
        this.samples = samples;
        this.ids = ids.supply();
        this.audit = audit;
    }

    /** What somebody kept, and when it is printed on. */
    record Version(int version, LocalDate from, String why, Instant madeAt, long madeBy, CheckLayout layout) {}

    /** What is printed on that day. */
    @Transactional(readOnly = true)
    public PaperLayout inForce(SeriesId of, LocalDate day) {
        return jdbc.sql("SELECT id, content FROM paper_layout WHERE series_id = :series AND in_force_from <= :day"
                        + " ORDER BY version DESC LIMIT 1")
                .param("series", of.value())
                .param("day", day)
                .query((r, n) -> new PaperLayout(r.getLong("id"), read(r.getString("content"))))
                .optional()
                .orElse(new PaperLayout(null, StandardLayouts.LETTER));
    }

    /** By id; one statement. */
    @Transactional(readOnly = true)
    public Map<Long, CheckLayout> of(Collection<Long> wanted) {
        Map<Long, CheckLayout> found = new HashMap<>();
        if (!wanted.isEmpty()) {
            jdbc.sql("SELECT id, content FROM paper_layout WHERE id IN (:ids)")
                    .param("ids", wanted)
                    .query((java.sql.ResultSet r) -> {
                        found.put(r.getLong("id"), read(r.getString("content")));
                    });
        }
        return found;
    }

    /** All of a series, the newest first. */
    @Transactional(readOnly = true)
    List<Version> versions(SeriesId of) {
        return jdbc.sql("SELECT version, in_force_from, why, made_at, made_by, content FROM paper_layout"
                        + " WHERE series_id = :series ORDER BY version DESC")
                .param("series", of.value())
                .query((r, n) -> new Version(
                        r.getInt("version"),
                        r.getObject("in_force_from", LocalDate.class),
                        r.getString("why"),
                        r.getTimestamp("made_at").toInstant(),
                        r.getLong("made_by"),
                        read(r.getString("content"))))
                .list();
    }

    /** Remembers that somebody had the test page of a layout. */
    @Transactional
    void tested(Actor by, SeriesId of, CheckLayout layout) {
        by.mayDo(Deed.SET_LAYOUT);
        mustBeRight(series.get(of), layout);
        jdbc.sql("INSERT IGNORE INTO paper_layout_test (series_id, digest, person_id, tested_at)"
                        + " VALUES (:series, :digest, :person, :at)")
                .param("series", of.value())
                .param("digest", digest(write(layout)))
                .param("person", by.person().value())
                .param("at", Timestamp.from(by.now()))
                .update();
    }

    /**
     * Keeps a layout as the next version.
     *
     * @param newest the version that was the newest when this one was begun; 0 for none
     */
    @Transactional
    int keep(Actor by, SeriesId of, CheckLayout layout, LocalDate from, String why, int newest) {
        by.mayDo(Deed.SET_LAYOUT);
        NumberSeries numbers = series.lock(series.get(of).way());
        mustBeRight(numbers, layout);
        if (from.isBefore(by.today())) {
            throw Refusal.invalidField(
                    "layout-from",
                    "from",
                    "A layout is in force from today or a later day; what was printed stays as it is.");
        }
        if (why.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say what changed, as the trail and the next one read it.");
        }
        List<Version> before = versions(of);
        int last = before.isEmpty() ? 0 : before.get(0).version();
        if (last != newest) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Version " + last + " was kept meanwhile. Look at it, then keep yours as the next or leave it.");
        }
        String content = write(layout);
        boolean tried = jdbc.sql("SELECT COUNT(*) FROM paper_layout_test WHERE series_id = :series AND digest = :digest"
                                + " AND person_id = :person")
                        .param("series", of.value())
                        .param("digest", digest(content))
                        .param("person", by.person().value())
                        .query(Integer.class)
                        .single()
                > 0;
        if (!tried) {
            throw Refusal.conflict(
                    "not-tried", "Print a test page of exactly this layout first, and lay it over the stock.");
        }
        jdbc.sql("INSERT INTO paper_layout (id, series_id, version, in_force_from, content, why, made_at, made_by)"
                        + " VALUES (:id, :series, :version, :from, :content, :why, :at, :by)")
                .param("id", ids.next())
                .param("series", of.value())
                .param("version", last + 1)
                .param("from", from)
                .param("content", content)
                .param("why", why.strip())
                .param("at", Timestamp.from(by.now()))
                .param("by", by.person().value())
                .update();
        audit.record(
                by,
                "keep layout",
                "series " + of.value(),
                Map.of("version", last + 1, "from", from.toString(), "why", why.strip(), "digest", digest(content)));
        return last + 1;
    }

    private void mustBeRight(NumberSeries numbers, CheckLayout layout) {
        List<Finding> findings = samples.findings(numbers, layout);
        if (!findings.isEmpty()) {
            Finding first = findings.get(0);
            String block = first.block() < 0
                    ? ""
                    : ", " + layout.on(first.part()).get(first.block()).says().words();
            throw Refusal.invalid(
                    "layout-wrong",
                    "On " + first.part().words() + block + ": " + first.words()
                            + (findings.size() == 1 ? "" : " And " + (findings.size() - 1) + " more."));
        }
    }

    private CheckLayout read(String content) {
        return json.readValue(content, LayoutFile.class).layout();
    }

    private String write(CheckLayout layout) {
        return json.writeValueAsString(LayoutFile.of(layout));
    }

    private static String digest(String content) {
        return Sha256.hex(content.getBytes(StandardCharsets.UTF_8));
    }
}

package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** The layouts of what banks write, for whoever reads it. */
@Service
public class KeptLayouts {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JsonMapper json;

    KeptLayouts(EntityManager entities, JdbcClient jdbc, JsonMapper json) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.json = json;
    }

    /** A layout in one of its versions, by the name under which a file is said to be read. */
    public record Kept(String name, Layout layout) {}

    /** A layout to choose. */
    public record ReadingLayout(long id, String name, Layout.Use use) {}

    /** Those by which something is read, each in its newest version. */
    @Transactional(readOnly = true)
    public List<ReadingLayout> toRead() {
        return jdbc.sql("SELECT MAX(id) AS id, name, file_use AS `use` FROM bank_file_layout WHERE file_use IN (:read)"
                        + " GROUP BY name, file_use ORDER BY name")
                .param(
                        "read",
                        Arrays.stream(Layout.Use.values())
                                .filter(Layout.Use::isRead)
                                .map(Layout.Use::name)
                                .toList())
                .query(ReadingLayout.class)
                .list();
    }

    /** A layout by which a bank is told something. */
    public record TellingLayout(long id, Layout layout) {}

    /** The newest of this name, of this use. */
    @Transactional(readOnly = true)
    public Optional<TellingLayout> newest(String name, Layout.Use use) {
        return jdbc.sql(
                        "SELECT id FROM bank_file_layout WHERE name = ? AND file_use = ? ORDER BY version_number DESC LIMIT 1")
                .params(name, use.name())
                .query(Long.class)
                .optional()
                .map(id -> new TellingLayout(
                        id, BankLayoutFile.read(entities.find(LayoutEntity.class, id).definition, json)));
    }

    /** As the bank is told how its files are written. */
    @Transactional(readOnly = true)
    public String described(long id) {
        return BankLayoutFile.typed(BankLayoutFile.read(entities.find(LayoutEntity.class, id).definition, json), json);
    }

    /** @throws Refusal when it is none by which something is read */
    @Transactional(readOnly = true)
    public Kept toRead(@Nullable Long id) {
        LayoutEntity row = id == null ? null : entities.find(LayoutEntity.class, id);
        if (row == null) {
            throw Refusal.invalidField(
                    "no-layout",
                    "layout",
                    "This file does not say how it is written. Choose the layout your bank uses for it.");
        }
        Layout layout = BankLayoutFile.read(row.definition, json);
        if (!layout.use().isRead()) {
            throw Refusal.invalidField(
                    "layout-told", "layout", layout.name() + " describes what the bank is told. Choose another.");
        }
        return new Kept(row.name + ", version " + row.versionNumber, layout);
    }
}

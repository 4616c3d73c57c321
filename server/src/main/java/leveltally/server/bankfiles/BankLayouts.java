package leveltally.server.bankfiles;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.FieldTry;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.LayoutCheck;
import leveltally.core.bankfiles.SampleLine;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** The layouts of bank files: kept in versions, each written once. */
@Service
class BankLayouts {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final AuditTrail audit;
    private final BankAccounts accounts;

    BankLayouts(EntityManager entities, JdbcClient jdbc, JsonMapper json, AuditTrail audit, BankAccounts accounts) {
        this.accounts = accounts;
        this.entities = entities;
        this.jdbc = jdbc;
        this.json = json;
        this.audit = audit;
    }

    /**
     * A layout in one of its versions.
     *
     * @param newest whether none came after it
     * @param usedBy the accounts whose files are made in it
     */
    record BankLayoutVersion(long id, String name, Layout.Use use, int version, boolean newest, String usedBy) {}

    /** Every version of every layout, the newest of each first. */
    @Transactional(readOnly = true)
    List<BankLayoutVersion> all() {
        return jdbc.sql("""
                        SELECT l.id, l.name, l.file_use AS `use`, l.version_number AS version,
                          l.version_number = MAX(l.version_number) OVER (PARTITION BY l.name) AS newest,
                          COALESCE((SELECT GROUP_CONCAT(a.name ORDER BY a.name SEPARATOR ', ') FROM bank_account a
                            WHERE l.id IN (a.layout_id, a.next_layout_id)), '') AS used_by
                        FROM bank_file_layout l ORDER BY l.name, l.version_number DESC
                        """).query(BankLayoutVersion.class).list();
    }

    /** As people read and change it. */
    @Transactional(readOnly = true)
    String text(long id) {
        LayoutEntity row = entities.find(LayoutEntity.class, id);
        if (row == null) {
            throw Refusal.notFound("no-layout", "There is no such layout of a file. Choose one from the list.");
        }
        return BankLayoutFile.typed(BankLayoutFile.read(row.definition, json), json);
    }

    /** @throws Refusal also where something about it is wrong whatever it is used on */
    Layout whole(String typed) {
        Layout layout = read(typed);
        LayoutCheck.of(layout).stream().findFirst().ifPresent(wrong -> {
            throw Refusal.invalidField("layout-wrong", "text", inWords(layout, wrong));
        });
        return layout;
    }

    /** What one of its fields makes of a value. */
    @Transactional(readOnly = true)
    FieldTry tried(Layout layout, BankAccountId account, int record, int field, String value) {
        if (record < 1
                || record > layout.records().size()
                || field < 1
                || field > layout.records().get(record - 1).fields().size()) {
            throw Refusal.invalidField("no-field", "field", "The layout has no such field. Choose one.");
        }
        return FieldTry.of(
                layout,
                layout.records().get(record - 1).fields().get(field - 1),
                accounts.get(account).currency(),
                value);
    }

    /** A bank's own sample over it. */
    @Transactional(readOnly = true)
    List<SampleLine> over(Layout layout, BankAccountId account, String sample) {
        return SampleLine.over(layout, accounts.get(account).currency(), sample);
    }

    Layout read(String typed) {
        return BankLayoutFile.read(json, typed);
    }

    /**
     * Keeps what was typed as the next version of the layout of its name; files made before stay as they are.
     *
     * @throws Refusal where something about it is wrong whatever it is used on
     */
    @Transactional
    BankLayoutVersion keep(Actor by, String typed) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        Layout layout = whole(typed);
        int version = jdbc.sql("SELECT COALESCE(MAX(version_number), 0) + 1 FROM bank_file_layout WHERE name = ?")
                .param(layout.name())
                .query(Integer.class)
                .single();
        mustStayOfItsUse(layout);
        LayoutEntity row = new LayoutEntity();
        row.name = layout.name();
        row.versionNumber = version;
        row.fileUse = layout.use();
        row.definition = BankLayoutFile.write(layout, json);
        entities.persist(row);
        entities.flush();
        audit.record(
                by, "keep bank layout", "bank layout " + row.id, Map.of("name", layout.name(), "version", version));
        return new BankLayoutVersion(row.id, row.name, layout.use(), version, true, "");
    }

    private void mustStayOfItsUse(Layout layout) {
        jdbc.sql("SELECT DISTINCT file_use FROM bank_file_layout WHERE name = ? AND file_use <> ?")
                .params(layout.name(), layout.use().name())
                .query(String.class)
                .list()
                .forEach(other -> {
                    throw Refusal.invalidField(
                            "layout-other-use",
                            "text",
                            "“" + layout.name() + "” is a layout of "
                                    + Layout.Use.valueOf(other).words() + ", not of "
                                    + layout.use().words() + ". Give this one another name.");
                });
    }

    /** What is wrong, and where. */
    static String inWords(Layout layout, LayoutCheck.Wrong wrong) {
        if (wrong.record() == 0) {
            return wrong.sentence();
        }
        var record = layout.records().get(wrong.record() - 1);
        String where = "Record " + wrong.record() + ", a " + record.place().words();
        return wrong.field() == 0
                ? where + ": " + wrong.sentence()
                : where + ", field " + wrong.field() + " “"
                        + record.fields().get(wrong.field() - 1).name() + "”: " + wrong.sentence();
    }
}

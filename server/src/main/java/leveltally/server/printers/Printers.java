package leveltally.server.printers;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.PrinterId;
import leveltally.core.printers.PrinterKind;
import leveltally.core.printers.QueueName;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Settings;
import leveltally.server.frame.WorkIds;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The company's printers; the stand-in is one only in the demo. */
@Service
public class Printers {
    private static final int LONGEST_NAME = 60;
    private static final String COLUMNS = "SELECT id, name, kind, queue, in_use FROM printer";

    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final AuditTrail audit;
    private final boolean demo;
    private final Map<PrinterKind, Printer> ways = new EnumMap<>(PrinterKind.class);

    Printers(JdbcClient jdbc, WorkIds ids, AuditTrail audit, Settings settings, List<Printer> ways) {
        this.jdbc = jdbc;
        this.ids = ids;
        this.audit = audit;
        this.demo = settings.demo();
        ways.forEach(way -> this.ways.put(way.kind(), way));
    }

    /** All of them, those in use first. */
    @Transactional(readOnly = true)
    public List<CompanyPrinter> all() {
        return jdbc
                .sql(COLUMNS + " ORDER BY in_use DESC, kind = 'QUEUE', kind = 'OWN', name")
                .query(Printers::printer)
                .list()
                .stream()
                .filter(printer -> demo || printer.kind() != PrinterKind.STAND_IN)
                .toList();
    }

    @Transactional(readOnly = true)
    public List<CompanyPrinter> inUse() {
        List<CompanyPrinter> used = all().stream().filter(CompanyPrinter::inUse).toList();
        // a copy of the demo that is run as a company of its own may have none left: the browser is always there
        return used.isEmpty()
                ? all().stream().filter(CompanyPrinter::opensPages).toList()
                : used;
    }

    /** @throws Refusal when there is none with this id that may be printed on */
    @Transactional(readOnly = true)
    public CompanyPrinter usable(PrinterId id) {
        return inUse().stream()
                .filter(printer -> printer.id().equals(id))
                .findFirst()
                .orElseThrow(() -> Refusal.conflict(
                        "no-printer",
                        "This printer is not in use any more. Choose another one in the sentence above."));
    }

    /** Whatever became of it since. */
    @Transactional(readOnly = true)
    public CompanyPrinter get(PrinterId id) {
        return jdbc.sql(COLUMNS + " WHERE id = :id")
                .param("id", id.value())
                .query(Printers::printer)
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-printer", "There is no such printer."));
    }

    /** What gives pages to printers of its kind. */
    public Printer way(CompanyPrinter printer) {
        return ways.get(printer.kind());
    }

    /** Adds a queue of the printing system. */
    @Transactional
    PrinterId add(Actor by, String name, String queue) {
        by.mayDo(Deed.SET_PRINTERS);
        PrinterId id = new PrinterId(ids.supply().next());
        String called = name(name);
        String at = new QueueName(queue.strip()).value();
        try {
            jdbc.sql("INSERT INTO printer (id, name, kind, queue) VALUES (:id, :name, 'QUEUE', :queue)")
                    .param("id", id.value())
                    .param("name", called)
                    .param("queue", at)
                    .update();
        } catch (DuplicateKeyException same) {
            throw taken(called);
        }
        audit.record(by, "add printer", subject(id), Map.of("name", called, "queue", at));
        return id;
    }

    /** Gives a printer another name or queue, or takes it in or out of use; what was printed on it stays. */
    @Transactional
    void change(Actor by, PrinterId id, String name, String queue, boolean inUse) {
        by.mayDo(Deed.SET_PRINTERS);
        CompanyPrinter before = get(id);
        String called = name(name);
        String at = before.kind() == PrinterKind.QUEUE ? new QueueName(queue.strip()).value() : "";
        if (!inUse && inUse().stream().allMatch(other -> other.id().equals(id))) {
            throw Refusal.conflict(
                    "last-printer",
                    "It is the only printer in use. Take another one into use first, then this one out.");
        }
        try {
            jdbc.sql("UPDATE printer SET name = :name, queue = :queue, in_use = :inUse WHERE id = :id")
                    .param("name", called)
                    .param("queue", at)
                    .param("inUse", inUse)
                    .param("id", id.value())
                    .update();
        } catch (DuplicateKeyException same) {
            throw taken(called);
        }
        Map<String, Object> changed = new LinkedHashMap<>();
        changed.put("name", called);
        changed.put("queue", at);
        changed.put("in use", inUse);
        changed.put("before", before.name() + " " + before.queue() + (before.inUse() ? "" : " not in use"));
        audit.record(by, "change printer", subject(id), changed);
    }

    private static String subject(PrinterId id) {
        return "printer " + id.value();
    }

    private static Refusal taken(String name) {
        return Refusal.invalidField("printer-name", "name", "Another printer is called " + name + " already.");
    }

    private static String name(String typed) {
        String name = typed.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw Refusal.invalidField(
                    "printer-name",
                    "name",
                    "Say what people call this printer, in at most " + LONGEST_NAME + " characters.");
        }
        return name;
    }

    private static CompanyPrinter printer(java.sql.ResultSet r, int n) throws java.sql.SQLException {
        return new CompanyPrinter(
                new PrinterId(r.getLong("id")),
                r.getString("name"),
                PrinterKind.valueOf(r.getString("kind")),
                r.getString("queue"),
                r.getBoolean("in_use"));
    }
}

package leveltally.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.MappedByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Currency;
import java.util.List;
import leveltally.core.electronic.AchEntry;
import leveltally.core.electronic.AchSender;
import leveltally.core.electronic.AchWriter;
import leveltally.core.electronic.EntryClass;
import leveltally.core.electronic.Transfer;
import leveltally.core.electronic.TransferSender;
import leveltally.core.electronic.TransferWriter;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;

/** Files of electronic payments, written one payment after the other, beside the bare buffered write of the same bytes. */
final class ElectronicBench {
    private static final int ROUNDS = 25;
    private static final int BUFFER = 1 << 16;
    private static final int ENTRIES = 100_000;
    private static final int TRANSFERS = 20_000;
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate DAY = LocalDate.of(2026, 11, 13);
    private static final LocalDateTime MADE = DAY.minusDays(1).atTime(9, 5);
    private static final RoutingNumber OURS = new RoutingNumber("990044105");
    private static final RoutingNumber THEIRS = new RoutingNumber("990073053");
    private static final List<String> PAYEES =
            List.of("Oakum & Pitch Chandlery", "Saltmarsh Marine Fuels", "Gannet Rope Walk", "Île de Gorse Pêcheries");

    private ElectronicBench() {}

    /** What is written to a stream. */
    private interface Written {
        void to(OutputStream out) throws Exception;
    }

    public static void main(String[] arguments) throws Exception {
        StringBuilder table =
                new StringBuilder("| file | payments | bytes | ours | bare write | ratio | memory after |\n"
                        + "| --- | ---: | ---: | ---: | ---: | ---: | ---: |\n");
        table.append(row("ACH, an addendum each", ENTRIES, ElectronicBench::ach));
        table.append(row("pain.001.001.09, one document each", TRANSFERS, ElectronicBench::transfers));
        System.out.print(table);
        if (arguments.length > 0) {
            Files.writeString(Path.of(arguments[0]), table);
        }
    }

    private static String row(String name, int payments, Written file) throws Exception {
        Path ours = Files.createTempFile("electronic", ".file");
        Path copy = Files.createTempFile("electronic", ".copy");
        try {
            double[] times = new Rounds(ROUNDS)
                    .beside(
                            () -> {
                                try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(ours), BUFFER)) {
                                    file.to(out);
                                }
                                return payments;
                            },
                            () -> bare(ours, copy));
            System.gc();
            Runtime memory = Runtime.getRuntime();
            return String.format(
                    java.util.Locale.ROOT,
                    "| %s | %,d | %,d | %.0f ms | %.0f ms | %.2f | %d MiB |%n",
                    name,
                    payments,
                    Files.size(ours),
                    times[0],
                    times[1],
                    times[0] / times[1],
                    (memory.totalMemory() - memory.freeMemory()) >> 20);
        } finally {
            Files.delete(ours);
            Files.delete(copy);
        }
    }

    private static void ach(OutputStream out) throws IOException {
        AchSender sender = new AchSender(
                OURS, "SKERROW TRUST", "1994400117", "MARROW BAY", "MARROW BAY", "1994400117", "INVOICES", OURS, null);
        AchWriter writer = new AchWriter(sender, MADE, 'A', out);
        writer.begin(EntryClass.CCD, DAY);
        for (int i = 1; i <= ENTRIES; i++) {
            writer.entry(new AchEntry(
                    i,
                    THEIRS,
                    "770031182264",
                    i % 9 == 0,
                    Money.ofMinor(100 + i * 7919L % 9_999_999, USD),
                    "E-" + i,
                    PAYEES.get(i % PAYEES.size()),
                    List.of("RMR*IV*OP-" + i + "**1225.00\\")));
        }
        writer.end();
        writer.finish();
    }

    private static void transfers(OutputStream out) throws Exception {
        BankDetails account = new BankDetails("", "ZZ650000123456789012");
        TransferSender sender = new TransferSender(
                TransferSender.Message.PAIN_001_09,
                "Marrow Bay Ferries",
                "994400117",
                account,
                TransferSender.Charges.SLEV,
                true);
        TransferWriter.Sums sums = new TransferWriter.Sums(TRANSFERS, Money.ofMinor(TRANSFERS * 122_500L, USD));
        TransferWriter writer = new TransferWriter(sender, "M-1", MADE, sums, out);
        writer.begin("M-1-1", DAY, sums);
        for (int i = 0; i < TRANSFERS; i++) {
            Money amount = Money.ofMinor(122_500, USD);
            writer.transfer(new Transfer(
                    "E-" + i,
                    amount,
                    account,
                    PAYEES.get(i % PAYEES.size()),
                    List.of("1 Quay", "Skerrow"),
                    List.of(new Transfer.Paid("OP-" + i, false, amount))));
        }
        writer.end();
        writer.finish();
    }

    /** The same bytes, a hundred at a time. */
    private static int bare(Path from, Path to) throws IOException {
        byte[] some = new byte[100];
        try (FileChannel channel = FileChannel.open(from);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(to), BUFFER)) {
            MappedByteBuffer bytes = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
            while (bytes.hasRemaining()) {
                int many = Math.min(some.length, bytes.remaining());
                bytes.get(some, 0, many);
                out.write(some, 0, many);
            }
            return (int) channel.size();
        }
    }
}

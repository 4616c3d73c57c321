package leveltally.core.electronic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.practicebank.OtherReader;
import leveltally.practicebank.PaidEntry;
import leveltally.practicebank.Unreadable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Random files, read back by the bank to practise on, which knows the rules by itself. */
class AchSecondOpinionTest {
    private LocalDate paysOn = LocalDate.EPOCH;

    private static final int FILES = 120;
    private static final Currency USD = Currency.getInstance("USD");
    private static final LocalDate DAY = LocalDate.of(2026, 11, 13);
    private static final List<RoutingNumber> BANKS =
            List.of(new RoutingNumber("990044105"), new RoutingNumber("990073053"));
    private static final String LETTERS = "Île & Øre—株 Паром 'x' Tern & Daughters Diesel Works of the Old Harbour";

    private final Random random = new Random(23);
    private final List<PaidEntry> expected = new ArrayList<>();

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void whatIsWrittenIsUnderstood(boolean balanced) throws Exception {
        for (int i = 0; i < FILES; i++) {
            expected.clear();
            byte[] file = file(balanced);
            assertThat(OtherReader.readAch(file)).isEqualTo(expected);
            String cut = new String(file, StandardCharsets.US_ASCII);
            byte[] some = cut.substring(0, cut.length() * (1 + random.nextInt(8)) / 10)
                    .getBytes(StandardCharsets.US_ASCII);
            assertThatThrownBy(() -> OtherReader.readAch(some)).isInstanceOf(Unreadable.class);
        }
    }

    private byte[] file(boolean balanced) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        AchSender sender = new AchSender(
                BANKS.get(0),
                "SKERROW TRUST",
                "1994400117",
                "MARROW BAY FERRIES",
                "MARROW BAY",
                "1994400117",
                "INVOICES",
                BANKS.get(0),
                balanced ? "004417720931" : null);
        AchWriter writer = new AchWriter(sender, DAY.atStartOfDay(), (char) ('A' + random.nextInt(26)), bytes);
        int sequence = random.nextInt(9_000_000);
        for (int batch = random.nextInt(4); batch > 0; batch--) {
            EntryClass of = EntryClass.values()[random.nextInt(3)];
            paysOn = DAY.plusDays(random.nextInt(9));
            writer.begin(of, paysOn);
            for (int i = random.nextInt(14); i > 0; i--) {
                sequence += 1 + random.nextInt(3);
                entry(writer, of, sequence);
            }
            writer.end();
            sequence++;
        }
        writer.finish();
        return bytes.toByteArray();
    }

    private void entry(AchWriter writer, EntryClass of, int sequence) throws IOException {
        List<String> addenda = new ArrayList<>();
        int most = of == EntryClass.CTX ? 6 : 1;
        for (int k = random.nextInt(most + 1); k > 0; k--) {
            addenda.add("RMR*IV*" + "x".repeat(k == 1 ? random.nextInt(60) : 72) + "\\");
        }
        AchEntry entry = new AchEntry(
                sequence,
                BANKS.get(random.nextInt(2)),
                String.valueOf(1_000 + random.nextInt(999_999_999)),
                random.nextBoolean(),
                // what a batch comes to is debited in one entry, which has room for no more than others
                Money.ofMinor(random.nextInt(500_000_000), USD),
                "E-" + sequence,
                "P" + LETTERS.substring(random.nextInt(40)),
                addenda);
        writer.entry(entry);
        int room = of == EntryClass.CTX ? 16 : 22;
        String payee = entry.payee()
                .substring(0, Math.min(room, entry.payee().length()))
                .strip();
        expected.add(new PaidEntry(
                entry.bank().digits(),
                entry.account(),
                entry.savings(),
                entry.amount().minor(),
                entry.reference(),
                payee,
                "99004410" + String.format("%07d", sequence),
                String.join("", addenda),
                paysOn));
    }
}

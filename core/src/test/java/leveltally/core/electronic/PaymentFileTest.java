package leveltally.core.electronic;

import static leveltally.core.Cases.day;
import static leveltally.core.Cases.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.electronic.FiledPayment.Document;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.practicebank.OtherReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Files of payments, written by an agreement and read back. */
class PaymentFileTest {
    private static final LocalDate PAYS_ON = day("2026-11-13");
    private static final BankDetails OWN = new BankDetails("990044105", "004417720931");

    private static AchAgreement ach(EntryClass entryClass, boolean balanced) {
        RoutingNumber bank = new RoutingNumber("990044105");
        return new AchAgreement(
                new AchSender(
                        bank,
                        "SKERROW TRUST",
                        "1994400117",
                        "MARROW BAY FERRIES",
                        "MARROW BAY",
                        "1994400117",
                        "INVOICES",
                        bank,
                        null),
                balanced,
                entryClass);
    }

    private static TransferAgreement transfers(Message message) {
        return new TransferAgreement(message, "Marrow Bay Ferries", "994400117", Charges.SLEV, true);
    }

    private static byte[] written(FileAgreement agreement, int ofDay, List<FiledPayment> payments) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Currency currency = payments.get(0).amount().currency();
        agreement.write(
                new FileAbout(
                        "CT-27",
                        LocalDateTime.parse("2026-11-12T09:30:00"),
                        ofDay,
                        PAYS_ON,
                        OWN,
                        payments.size(),
                        Money.sum(payments.stream().map(FiledPayment::amount).toList(), currency)),
                taking -> {
                    for (FiledPayment one : payments) {
                        taking.take(one);
                    }
                },
                out);
        return out.toByteArray();
    }

    private static List<SaidPayment> said(FileAgreement agreement, byte[] file) throws IOException {
        List<SaidPayment> said = new ArrayList<>();
        PaymentFileReader.read(agreement.method(), new ByteArrayInputStream(file), said::add);
        return said;
    }

    private static FiledPayment payment(long reference, Money amount, BankDetails account) {
        return new FiledPayment(
                "A" + reference,
                FiledPayment.sequence(reference),
                amount,
                account,
                "Gannet Rope Walk",
                List.of("1 Slipway Road"),
                List.of(new Document("OP-" + reference, false, amount, amount, Money.zero(amount.currency()))));
    }

    private static List<FiledPayment> random(Random random, Currency currency, boolean iban) {
        List<FiledPayment> payments = new ArrayList<>();
        long reference = 100_000 + random.nextInt(9_900_000);
        for (int i = random.nextInt(60); i >= 0; i--) {
            payments.add(payment(
                    reference++,
                    Money.ofMinor(1 + (long) (random.nextDouble() * 8_000_000_000L), currency),
                    iban
                            ? new BankDetails("", "ZZ650000123456789012", false, random.nextBoolean() ? "DUNLZZ2X" : "")
                            : new BankDetails(
                                    "990073053",
                                    String.valueOf(1_000L + random.nextInt(1_000_000_000)),
                                    random.nextBoolean(),
                                    "")));
        }
        return payments;
    }

    @ParameterizedTest
    @EnumSource(EntryClass.class)
    void whatIsWrittenIsReadBack(EntryClass entryClass) throws IOException {
        Random random = new Random(entryClass.ordinal());
        for (int round = 0; round < 30; round++) {
            FileAgreement agreement = ach(entryClass, random.nextBoolean());
            List<FiledPayment> payments = random(random, Currency.getInstance("USD"), false);
            assertThat(said(agreement, written(agreement, 1, payments))).isEqualTo(asSaid(payments, 16));
        }
    }

    @ParameterizedTest
    @CsvSource({"PAIN_001_03, EUR", "PAIN_001_09, EUR", "PAIN_001_09, JPY", "PAIN_001_09, KWD"})
    void transfersAreReadBackInAnyCurrency(Message message, String currency) throws Exception {
        Random random = new Random(message.ordinal());
        for (int round = 0; round < 30; round++) {
            List<FiledPayment> payments = random(random, Currency.getInstance(currency), random.nextBoolean());
            byte[] file = written(transfers(message), 1, payments);
            assertThat(said(transfers(message), file)).isEqualTo(asSaid(payments, 70));
            // and so does a reader that shares nothing with ours
            assertThat(OtherReader.readTransfers(file).stream()
                            .map(one -> new SaidPayment(one.id(), one.minor(), one.account(), one.payee())))
                    .isEqualTo(asSaid(payments, 70));
        }
    }

    private static List<SaidPayment> asSaid(List<FiledPayment> payments, int longest) {
        return payments.stream()
                .map(one -> new SaidPayment(
                        one.called(),
                        one.amount().minor(),
                        one.account().account(),
                        one.payee().substring(0, Math.min(longest, one.payee().length()))))
                .toList();
    }

    @Test
    void anotherBatchBeginsWhereOneIsFullOrItsNumbersBeginAnew() throws IOException {
        BankDetails account = new BankDetails("990073053", "1234");
        List<FiledPayment> payments = List.of(
                payment(100, usd("99999999.98"), account),
                payment(101, usd("0.01"), account),
                payment(102, usd("0.01"), account),
                payment(FiledPayment.SEQUENCES, usd("5.00"), account),
                payment(FiledPayment.SEQUENCES + 1L, usd("6.00"), account));
        String file = new String(written(ach(EntryClass.CCD, true), 27, payments), StandardCharsets.US_ASCII);
        List<String> records = file.lines().toList();
        assertThat(records.get(0).substring(33, 34)).isEqualTo("0");
        assertThat(records.stream().filter(line -> line.startsWith("8")).map(line -> line.substring(20, 44)))
                .containsExactly("009999999999009999999999", "000000000501000000000501", "000000000600000000000600");
        // what balances each has a number no payment ever has
        assertThat(records.stream().filter(line -> line.startsWith("627")).map(line -> line.substring(87)))
                .containsExactly("9990001", "9990002", "9990003");
    }

    @Test
    void whatHasNoPlaceIsSaid() {
        BankDetails iban = new BankDetails("", "ZZ650000123456789012");
        FiledPayment toIban = payment(1, usd("1.00"), iban);
        assertThatThrownBy(() -> ach(EntryClass.CCD, false).check(toIban, PAYS_ON, OWN))
                .hasMessageContaining("not an IBAN");
        FiledPayment tooMuch = payment(1, usd("100000000.00"), new BankDetails("990073053", "1234"));
        assertThatThrownBy(() -> ach(EntryClass.CCD, false).check(tooMuch, PAYS_ON, OWN))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("99,999,999.99");
        transfers(Message.PAIN_001_09).check(toIban, PAYS_ON, OWN);
    }

    @Test
    void filesAreAsFullAsTheyGo() {
        List<Money> amounts = List.of(usd("60.00"), usd("40.00"), usd("1.00"), usd("99.00"), usd("100.00"));
        assertThat(FileSplit.of(amounts, usd("100.00"), true)).containsExactly(2, 2, 1);
        assertThat(FileSplit.of(amounts, null, false)).containsExactly(5);
        assertThat(FileSplit.of(List.of(), usd("100.00"), true)).isEmpty();
        assertThatThrownBy(() -> FileSplit.of(amounts, usd("100.00"), false))
                .isInstanceOfSatisfying(
                        Refusal.class, refused -> assertThat(refused.code()).isEqualTo("file-too-large"));
        Random random = new Random(7);
        for (int round = 0; round < 200; round++) {
            List<Money> some = new ArrayList<>();
            for (int i = random.nextInt(40); i > 0; i--) {
                some.add(Money.ofMinor(1 + random.nextInt(100), "USD"));
            }
            List<Integer> files = FileSplit.of(some, Money.ofMinor(100, "USD"), true);
            int at = 0;
            for (int i = 0; i < files.size(); i++) {
                long sum = 0;
                for (Money one : some.subList(at, at + files.get(i))) {
                    sum += one.minor();
                }
                at += files.get(i);
                assertThat(sum).isLessThanOrEqualTo(100);
                // the next one would not have gone in
                if (i + 1 < files.size()) {
                    assertThat(sum + some.get(at).minor()).isGreaterThan(100);
                }
            }
            assertThat(at).isEqualTo(some.size());
        }
    }
}

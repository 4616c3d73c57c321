package leveltally.core.electronic;

import static leveltally.core.Cases.USD;
import static leveltally.core.Cases.day;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankingDays;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AnnouncementTest {
    private static final BankingDays CALENDAR = new BankingDays(Set.of(day("2026-11-26")));

    @ParameterizedTest(name = "announced on {0}, {1} days: from {2}")
    @CsvSource({
        "2026-11-12, 3, 2026-11-17",
        // a weekend and a holiday are no banking days
        "2026-11-24, 3, 2026-11-30",
        "2026-11-12, 1, 2026-11-13",
    })
    void moneyGoesThereSoManyBankingDaysLater(String effective, int days, String from) {
        Announcement one = new Announcement(day(effective), true, "");
        assertThat(one.payableFrom(days, CALENDAR)).isEqualTo(day(from));
        assertThat(one.against(day(from), days, CALENDAR)).isEmpty();
        assertThat(one.against(day(from).minusDays(1), days, CALENDAR))
                .hasValueSatisfying(why -> assertThat(why).contains("money may go there from"));
    }

    @Test
    void nothingGoesThereBeforeTheBankTookItOrOnceItCameBack() {
        assertThat(new Announcement(day("2026-11-02"), false, "").against(day("2026-12-01"), 3, CALENDAR))
                .hasValueSatisfying(why -> assertThat(why).contains("nobody knows yet"));
        assertThat(new Announcement(day("2026-11-02"), true, "R03: no account").against(day("2026-12-01"), 3, CALENDAR))
                .hasValueSatisfying(why -> assertThat(why).contains("R03").contains("other bank details"));
    }

    private static AchAgreement agreement(EntryClass entryClass, Integer days) {
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
                true,
                entryClass,
                days);
    }

    @Test
    void itsFileHasEntriesOfNothingThatPayAndDebitNothing() throws IOException {
        List<FiledPayment> accounts = List.of(
                new FiledPayment(
                        "A1",
                        7,
                        Money.parse("25.00", USD),
                        BankDetails.typed("990073053", "440011", false, ""),
                        "Bollard Foundry",
                        List.of(),
                        List.of()),
                new FiledPayment(
                        "A2",
                        8,
                        Money.parse("9.00", USD),
                        BankDetails.typed("990073053", "440012", true, ""),
                        "Ebb Tide Linen",
                        List.of(),
                        List.of()));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        agreement(EntryClass.CTX, 3)
                .announce(
                        new FileAbout(
                                "F1",
                                LocalDateTime.of(2026, 11, 12, 9, 0),
                                1,
                                day("2026-11-13"),
                                BankDetails.typed("990044105", "1234567", false, ""),
                                2,
                                Money.zero(USD)),
                        taking -> {
                            for (FiledPayment one : accounts) {
                                taking.take(one);
                            }
                        },
                        out);
        List<String> lines = List.of(out.toString(StandardCharsets.US_ASCII).split("\n"));
        assertThat(lines).allSatisfy(line -> assertThat(line.strip()).hasSizeLessThanOrEqualTo(94));
        assertThat(lines.stream().filter(line -> line.startsWith("6")).map(line -> line.substring(1, 3)))
                .as("prenotifications of a checking and a savings account, and no entry that balances them")
                .containsExactly("23", "33");
        assertThat(lines.stream().filter(line -> line.startsWith("6")).map(line -> line.substring(29, 39)))
                .containsOnly("0000000000");
        assertThat(lines).noneMatch(line -> line.startsWith("7"));
        assertThat(lines.stream().filter(line -> line.startsWith("5")).map(line -> line.substring(50, 53)))
                .containsExactly("CCD");
        List<SaidPayment> said = new ArrayList<>();
        PaymentFileReader.read(PaymentMethod.ACH, new ByteArrayInputStream(out.toByteArray()), said::add);
        assertThat(said).as("what only announces is no payment").isEmpty();
    }

    @Test
    void rejectsWaitingDaysThatNoBankHas() {
        assertThatThrownBy(() -> agreement(EntryClass.CCD, 0)).isInstanceOf(Refusal.class);
        assertThatThrownBy(() -> agreement(EntryClass.CCD, 11)).hasMessageContaining("1 to 10 banking days");
    }
}

package leveltally.server.clearing;

import static leveltally.server.clearing.TestBank.USD;
import static leveltally.server.clearing.TestBank.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.prowidesoftware.swift.model.mx.MxCamt05300108;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.clearing.BankReport;
import leveltally.core.clearing.Movement;
import leveltally.core.money.Money;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Statements as ISO 20022 describes them. */
class Camt053Test {
    private static final String STATEMENT = """
            <?xml version="1.0" encoding="UTF-8"?>
            <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08">
              <BkToCstmrStmt>
                <GrpHdr><MsgId>M1</MsgId><CreDtTm>2026-11-13T06:00:00Z</CreDtTm></GrpHdr>
                <Stmt>
                  <Id>ST-7</Id>
                  <ElctrncSeqNb>7</ElctrncSeqNb>
                  <CreDtTm>2026-11-13T06:00:00Z</CreDtTm>
                  <FrToDt><FrDtTm>2026-11-12T00:00:00Z</FrDtTm><ToDtTm>2026-11-12T23:59:59Z</ToDtTm></FrToDt>
                  <Acct><Id><Othr><Id>004417</Id></Othr></Id><Ccy>USD</Ccy></Acct>
                  <Bal><Tp><CdOrPrtry><Cd>OPBD</Cd></CdOrPrtry></Tp><Amt Ccy="USD">1000.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>2026-11-12</Dt></Dt></Bal>
                  <Bal><Tp><CdOrPrtry><Cd>CLBD</Cd></CdOrPrtry></Tp><Amt Ccy="USD">634.50</Amt><CdtDbtInd>CRDT</CdtDbtInd><Dt><Dt>2026-11-12</Dt></Dt></Bal>
                  <TxsSummry><TtlNtries><NbOfNtries>5</NbOfNtries></TtlNtries></TxsSummry>
                  <Ntry><Amt Ccy="USD">125.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>2026-11-12</Dt></BookgDt><AcctSvcrRef>R1</AcctSvcrRef>
                    <NtryDtls><TxDtls><Refs><ChqNb>0041237</ChqNb></Refs></TxDtls></NtryDtls></Ntry>
                  <Ntry><Amt Ccy="USD">300.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><DtTm>2026-11-12T09:00:00</DtTm></BookgDt>
                    <NtryDtls><Btch><NbOfTxs>2</NbOfTxs></Btch>
                      <TxDtls><Refs><ChqNb>41238</ChqNb></Refs><Amt Ccy="USD">100.00</Amt><CdtDbtInd>DBIT</CdtDbtInd></TxDtls>
                      <TxDtls><Refs><ChqNb>41239</ChqNb></Refs><Amt Ccy="USD">200.00</Amt><CdtDbtInd>DBIT</CdtDbtInd></TxDtls></NtryDtls></Ntry>
                  <Ntry><Amt Ccy="USD">12.50</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>2026-11-12</Dt></BookgDt><AddtlNtryInf>Account fee</AddtlNtryInf></Ntry>
                  <Ntry><Amt Ccy="USD">72.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><RvslInd>true</RvslInd><Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>2026-11-12</Dt></BookgDt>
                    <NtryDtls><TxDtls><Refs><ChqNb>41240</ChqNb></Refs></TxDtls></NtryDtls></Ntry>
                  <Ntry><Amt Ccy="USD">5.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>PDNG</Cd></Sts><BookgDt><Dt>2026-11-12</Dt></BookgDt></Ntry>
                </Stmt>
              </BkToCstmrStmt>
            </Document>
            """;

    private static List<BankReport> read(String text) {
        return Camt053.read(text.getBytes(StandardCharsets.UTF_8), USD);
    }

    @Test
    void bookedEntriesAreMovementsEachDetailThatNamesItsAmountForItself() {
        BankReport read = read(STATEMENT).get(0);

        assertThat(read.number()).isEqualTo("7");
        assertThat(read.account()).isEqualTo("004417");
        assertThat(read.opening()).isEqualTo(usd("1000.00"));
        assertThat(read.closing()).isEqualTo(usd("634.50"));
        assertThat(read.to()).isEqualTo(LocalDate.of(2026, 11, 12));
        assertThat(read.movements())
                .extracting(Movement::number, movement -> movement.amount().plain(), Movement::text, Movement::reversal)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("0041237", "-125.00", "", false),
                        org.assertj.core.groups.Tuple.tuple("41238", "-100.00", "", false),
                        org.assertj.core.groups.Tuple.tuple("41239", "-200.00", "", false),
                        org.assertj.core.groups.Tuple.tuple("", "-12.50", "Account fee", false),
                        org.assertj.core.groups.Tuple.tuple("41240", "72.00", "", true));
        assertThat(read.movements().get(0).digits()).hasValue(41_237);
    }

    /** A reader of others sees the same entries come to the same. */
    @Test
    void anotherReaderReadsTheSame() {
        var statement =
                MxCamt05300108.parse(STATEMENT).getBkToCstmrStmt().getStmt().get(0);
        BigDecimal booked = statement.getNtry().stream()
                .filter(entry -> entry.getSts().getCd().equals("BOOK"))
                .map(entry -> entry.getCdtDbtInd().value().equals("DBIT")
                        ? entry.getAmt().getValue().negate()
                        : entry.getAmt().getValue())
                .reduce(BigDecimal.ZERO, BigDecimal::add);

        Money sum = Money.sum(
                read(STATEMENT).get(0).movements().stream()
                        .map(Movement::amount)
                        .toList(),
                USD);

        assertThat(sum.toDecimal()).isEqualByComparingTo(booked);
        assertThat(statement.getBal().get(0).getAmt().getValue().add(booked))
                .isEqualByComparingTo(statement.getBal().get(1).getAmt().getValue());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "634.50|634.51|should end with",
                "<NbOfNtries>5|<NbOfNtries>6|counts 6 entries and holds 5",
                "<Cd>OPBD|<Cd>ITBD|no opening balance",
                "camt.053.001.08|camt.052.001.08|no camt.053 statement",
                "<Amt Ccy=\"USD\">12.50|<Amt Ccy=\"EUR\">12.50|in EUR",
                "<Amt Ccy=\"USD\">12.50|<Amt Ccy=\"USD\">-12.50|below zero",
                "<Amt Ccy=\"USD\">12.50|<Amt Ccy=\"USD\">12,50|no amount",
                "</BkToCstmrStmt>|<broken|no readable XML"
            })
    void whatIsNotWholeIsRefused(String from, String to, String why) {
        assertThatThrownBy(() -> read(STATEMENT.replace(from, to)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(why);
    }

    @Test
    void entitiesAreRefused() {
        String hidden =
                STATEMENT.replace("<Document", "<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]>\n<Document");
        assertThatThrownBy(() -> read(hidden)).isInstanceOf(Refusal.class).hasMessageContaining("document type");
    }
}

import { Document, Page, renderToBuffer, Text, View } from '@react-pdf/renderer';
import type { RecordDocument } from '@/core/shell/record-document';
import { UNCERTAINTY_STATEMENT } from '@/core/report/statement';
import type { Formatter } from '../formatter';
import { hashLine, recordFacts, signedBy, type Signature } from '../record-tables';
import { Part, registerFonts, style } from './page-parts';
import { Conformity, Rounds, Found, Final, Changes, Gaps, Work, Log, Photographs, Told } from './record-parts';

export interface RecordPdfInput {
  readonly record: RecordDocument;
  readonly signature?: Signature;
  readonly paper: 'A4' | 'LETTER';
  readonly format: Formatter;
  /** Small JPEG pictures by the photograph's id. */
  readonly previews: ReadonlyMap<string, Uint8Array>;
}

/** The record as a PDF. */
export function renderRecordPdf(input: RecordPdfInput): Promise<Buffer> {
  registerFonts();
  return renderToBuffer(<RecordPdf {...input} />);
}

function RecordPdf({ record, signature, paper, format, previews }: RecordPdfInput) {
  const { job } = record;
  const facts = recordFacts(record, signature, format);
  const hash = hashLine(signature);
  return (
    <Document title={`Record of ${job.name}`} author={job.shop} language="en">
      <Page size={paper} style={style.page}>
        <Text style={style.soft}>Record of a car body</Text>
        <Text style={style.title}>{job.name}</Text>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', marginTop: 6 }}>
          {facts.map(([name, value]) => (
            <View key={name} style={{ width: '33.3%', paddingRight: 8, marginBottom: 4 }}>
              <Text style={style.soft}>{name}</Text>
              <Text>{value}</Text>
            </View>
          ))}
        </View>
        <Conformity record={record} format={format} />
        <Rounds record={record} format={format} />
        <Found record={record} format={format} />
        <Final record={record} format={format} />
        <Changes record={record} format={format} />
        <Gaps record={record} format={format} />
        <Work record={record} format={format} />
        <Log record={record} format={format} />
        <Told record={record} format={format} signed={signature !== undefined} />
        <Photographs record={record} previews={previews} />
        <Part title="How sure this is, and who signs">
          <Text>{UNCERTAINTY_STATEMENT}</Text>
          {hash ? <Text style={{ ...style.soft, marginTop: 6 }}>{hash}</Text> : null}
          <View style={{ flexDirection: 'row', marginTop: 34 }} wrap={false}>
            <Text style={{ width: '45%', borderTopWidth: 0.8, paddingTop: 2, marginRight: '10%' }}>
              {signedBy(signature, format)} · for {job.shop || 'the shop'}
            </Text>
            <Text style={{ width: '45%', borderTopWidth: 0.8, paddingTop: 2 }}>received by the owner</Text>
          </View>
        </Part>
        <View style={style.foot} fixed>
          <Text>{job.name}</Text>
          <Text render={({ pageNumber, totalPages }) => `${pageNumber} of ${totalPages}`} />
        </View>
      </Page>
    </Document>
  );
}

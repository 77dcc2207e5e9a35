import path from 'node:path';
import { Font, StyleSheet, Text, View } from '@react-pdf/renderer';
import type { ReactNode } from 'react';
import type { Formatter } from '../formatter';
import { titleOf, type TableColumn } from '../record-tables';

const FONTS = path.join(process.cwd(), 'node_modules/@fontsource/ibm-plex-sans/files');
let registered = false;

/** Latin first, the extended letters of other languages behind it. */
export function registerFonts(): void {
  if (registered) return;
  registered = true;
  for (const subset of ['latin', 'latin-ext', 'cyrillic', 'greek'])
    Font.register({
      family: `Plex-${subset}`,
      fonts: [400, 600].map((fontWeight) => ({
        src: `${FONTS}/ibm-plex-sans-${subset}-${fontWeight}-normal.woff`,
        fontWeight,
      })),
    });
  Font.registerHyphenationCallback((word) => [word]);
}

export const style = StyleSheet.create({
  page: {
    fontFamily: ['Plex-latin', 'Plex-latin-ext', 'Plex-cyrillic', 'Plex-greek'],
    fontSize: 8.5,
    padding: 36,
    paddingBottom: 48,
    color: '#1c2430',
  },
  title: { fontSize: 20, fontWeight: 600 },
  part: { fontSize: 12, fontWeight: 600, marginTop: 14, marginBottom: 4 },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderColor: '#cfc6b0', paddingVertical: 1.6 },
  head: {
    flexDirection: 'row',
    borderBottomWidth: 1.2,
    borderColor: '#1c2430',
    paddingVertical: 1.6,
    color: '#565a5c',
  },
  soft: { color: '#565a5c' },
  foot: {
    position: 'absolute',
    bottom: 22,
    left: 36,
    right: 36,
    flexDirection: 'row',
    justifyContent: 'space-between',
    color: '#565a5c',
    fontSize: 7.5,
  },
});

/** A ruled table that breaks between its rows. */
export function Table<Row>({
  columns,
  rows,
  format,
}: {
  columns: readonly TableColumn<Row>[];
  rows: readonly Row[];
  format: Formatter;
}) {
  const cell = (text: string, { width, right }: TableColumn<Row>, i: number) => (
    <Text key={i} style={{ width: `${width}%`, textAlign: right ? 'right' : 'left', paddingRight: 4 }}>
      {text}
    </Text>
  );
  return (
    <View>
      <View style={style.head} wrap={false}>
        {columns.map((column, i) => cell(titleOf(column, format), column, i))}
      </View>
      {rows.map((row, r) => (
        <View key={r} style={style.row} wrap={false}>
          {columns.map((column, i) => {
            const parts = [column.text(row, format), column.also?.(row, format) ?? ''];
            return cell(parts.filter(Boolean).join(' '), column, i);
          })}
        </View>
      ))}
    </View>
  );
}

/** A chapter, its title kept with what follows. */
export const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <View>
    <Text style={style.part} minPresenceAhead={40}>
      {title}
    </Text>
    {children}
  </View>
);

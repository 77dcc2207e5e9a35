import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { readClosedDays, writeCalendar } from './ics';

const event = (...lines: string[]) => ['BEGIN:VEVENT', 'UID:1', ...lines, 'END:VEVENT'].join('\r\n');
const file = (...events: string[]) => ['BEGIN:VCALENDAR', 'VERSION:2.0', ...events, 'END:VCALENDAR'].join('\r\n');

describe('a calendar for other programs', () => {
  it('is read by a standard reader as it was written, whatever its words hold', () => {
    const [starts, ends] = ['2026-10-24T14:00:00Z', '2026-10-25T15:00:00Z'].map((at) => Date.parse(at)) as [
      number,
      number,
    ];
    const text = writeCalendar(
      'Solbris, estate; left',
      [{ id: 'a1', title: 'Seal, then wax; both', starts, ends, note: 'line one\nand two' }],
      starts,
    );
    expect(text.split('\r\n').every((line) => new TextEncoder().encode(line).length <= 75)).toBe(true);
    const [read] = new ICAL.Component(ICAL.parse(text) as unknown as string).getAllSubcomponents('vevent');
    const found = new ICAL.Event(read!);
    expect([found.uid, found.summary, found.description]).toEqual(['a1', 'Seal, then wax; both', 'line one\nand two']);
    expect(found.startDate.toJSDate().getTime()).toBe(starts);
    expect(found.endDate.toJSDate().getTime()).toBe(ends);
  });

  it('tells the days on which nobody works: several at once, and those that come again', () => {
    const text = file(
      event('DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261227', 'SUMMARY:Christmas'),
      event('DTSTART;VALUE=DATE:20260101', 'SUMMARY:New Year', 'RRULE:FREQ=YEARLY'),
      event('DTSTART:20261201T090000Z', 'DTEND:20261201T100000Z', 'SUMMARY:A meeting'),
    );
    expect(readClosedDays(text, '2026-11-01', '2028-01-31')).toEqual({
      ok: true,
      value: [
        { day: '2026-12-24', name: 'Christmas' },
        { day: '2026-12-25', name: 'Christmas' },
        { day: '2026-12-26', name: 'Christmas' },
        { day: '2027-01-01', name: 'New Year' },
        { day: '2028-01-01', name: 'New Year' },
      ],
    });
  });

  it('says in words what is no calendar, and that one holds no day off', () => {
    const said = (text: string) => {
      const read = readClosedDays(text, '2026-11-01', '2027-11-01');
      return read.ok ? '' : read.faults[0]!.message;
    };
    expect(said('a;b;c')).toMatch(/no calendar/);
    expect(said(file(event('DTSTART:20261201T090000Z', 'SUMMARY:A meeting')))).toMatch(/no whole day/);
  });
});

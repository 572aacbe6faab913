import { type CalendarDate, parseDate, parseTime, type Time } from '@internationalized/date';
import { memo } from 'react';
import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import {
  Button as AriaButton,
  Calendar,
  CalendarCell,
  CalendarGrid,
  DateInput,
  DatePicker,
  DateSegment,
  Dialog,
  Group,
  Heading,
  I18nProvider,
  Label,
  Popover,
  TimeField,
} from 'react-aria-components';
import styled from 'styled-components';
import { coarse, figures } from './tokens';
import { boxLook, fieldLook, FieldName } from './field';

const Day = styled(DatePicker)`
  ${fieldLook}
`;
const Hour = styled(TimeField)`
  ${fieldLook}
`;
const Box = styled(Group)`
  ${boxLook}
  display: flex;
  align-items: center;
  gap: 4px;
  padding-right: 3px;
  ${coarse} {
    padding-block: 0;
    padding-right: 0;
  }
`;
const Segments = styled(DateInput)`
  display: flex;
  flex: 1;
  ${figures} font-size: 16px;
`;
const HourSegments = styled(DateInput)`
  ${boxLook}
  display: flex;
  align-items: center;
  ${figures} font-size: 16px;
`;
const Segment = styled(DateSegment)`
  padding: 0 1px;
  border-radius: 3px;
  outline: none;
  &[data-focused] {
    background: var(--ink);
    color: var(--panel);
  }
  &[data-placeholder] {
    color: var(--quiet);
  }
`;
const Open = styled(AriaButton)`
  border: none;
  background: none;
  width: 30px;
  min-height: 28px;
  border-radius: 5px;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  cursor: pointer;
  @media (pointer: coarse) {
    width: 44px;
    min-height: 44px;
  }
`;
const Floating = styled(Popover)`
  background: var(--panel);
  border: 1px solid var(--control-line);
  border-radius: 9px;
  padding: 12px;
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 6px;
  }
  h2 {
    font-size: 15px;
  }
`;
const Cell = styled(CalendarCell)`
  width: 36px;
  height: 34px;
  display: flex;
  align-items: center;
  justify-content: center;
  border-radius: 6px;
  cursor: pointer;
  ${figures}
  &[data-outside-month] {
    display: none;
  }
  &[data-hovered] {
    background: var(--chosen);
  }
  &[data-selected] {
    background: var(--ink);
    color: var(--panel);
  }
`;

function day(date: string): CalendarDate | null {
  try {
    return parseDate(date);
  } catch {
    return null;
  }
}

function hour(time: string): Time | null {
  try {
    return parseTime(time);
  } catch {
    return null;
  }
}

const two = (number: number) => String(number).padStart(2, '0');

/** Days as 2026-08-29 and hours to 24, as everywhere in Tolva. */
const locale = 'en-CA-u-hc-h23';

type DayProps = { name: string; date: string; onDate: (date: string) => void };

/** A day, typed or from a calendar. */
export const DayField = memo(function DayField({ name, date, onDate }: DayProps) {
  return (
    <I18nProvider locale={locale}>
      <Day value={day(date)} onChange={(to) => to && to.year > 999 && onDate(to.toString())} shouldForceLeadingZeros>
        <Label>
          <FieldName>{name}</FieldName>
        </Label>
        <Box>
          <Segments>{(segment) => <Segment segment={segment} />}</Segments>
          <Open aria-label="Open the calendar">
            <CalendarDays size={16} aria-hidden />
          </Open>
        </Box>
        <Floating>
          <Dialog aria-label="Calendar">
            <Calendar firstDayOfWeek="mon">
              <header>
                <Open slot="previous">
                  <ChevronLeft size={18} aria-hidden />
                </Open>
                <Heading />
                <Open slot="next">
                  <ChevronRight size={18} aria-hidden />
                </Open>
              </header>
              <CalendarGrid>{(date) => <Cell date={date} />}</CalendarGrid>
            </Calendar>
          </Dialog>
        </Floating>
      </Day>
    </I18nProvider>
  );
});

type HourProps = { name: string; time: string; onTime: (time: string) => void };

/** An hour of the day. */
export function HourField({ name, time, onTime }: HourProps) {
  return (
    <I18nProvider locale={locale}>
      <Hour
        value={hour(time)}
        onChange={(to) => to && onTime(`${two(to.hour)}:${two(to.minute)}`)}
        hourCycle={24}
        shouldForceLeadingZeros
      >
        <Label>
          <FieldName>{name}</FieldName>
        </Label>
        <HourSegments>{(segment) => <Segment segment={segment} />}</HourSegments>
      </Hour>
    </I18nProvider>
  );
}

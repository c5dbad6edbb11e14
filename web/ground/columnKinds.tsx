import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../core/calendar/displayDate';
import { displayPercent, displayQuantity } from '../../core/money/display';
import type { FigureRef } from '../../wire/workings';
import { showUnitCostFull } from '../kit/typed/unitCosts';
import type { TableColumn } from '../kit/table/tableTypes';
import { useWithMonth } from './asOf';
import { useCurrency } from './company';
import { Fig } from './workings/Fig';

type More<Row> = Partial<TableColumn<Row>>;
type Of<Row> = { of?: (row: Row) => FigureRef; figLabel?: string | ((row: Row) => string) };

const whole = (value: number) => value.toLocaleString('en-GB');

/** The kinds of columns lists are made of; a figure opens its workings where it names them. */
export function useColumnKinds() {
  const { show, exact } = useCurrency();
  const withMonth = useWithMonth();
  return useMemo(() => {
    const figure = <Row,>(
      key: string,
      title: string,
      value: (row: Row) => number,
      { unit, number, ...more }: { unit: 'money' | 'percent' | 'hours'; number: (value: number) => string } & Of<Row> & More<Row>,
    ): TableColumn<Row> => {
      const { of, figLabel = title, ...rest } = more;
      const plain = unit === 'money' ? show : number;
      const cell = (row: Row) =>
        of ? (
          <Fig value={value(row)} unit={unit} of={of(row)} label={typeof figLabel === 'string' ? figLabel : figLabel(row)} />
        ) : (
          plain(value(row))
        );
      return { key, title, value, number, cell, ...rest };
    };
    return {
      text: <Row,>(key: string, title: string, value: (row: Row) => string, more: More<Row> = {}): TableColumn<Row> => ({
        key,
        title,
        value,
        cell: value,
        ...more,
      }),
      /** Text that leads to a page of ours. */
      link: <Row,>(
        key: string,
        title: string,
        value: (row: Row) => string,
        to: (row: Row) => string,
        more: More<Row> = {},
      ): TableColumn<Row> => ({
        key,
        title,
        value,
        cell: (row) => <Link to={withMonth(to(row))}>{value(row)}</Link>,
        ...more,
      }),
      day: <Row,>(key: string, title: string, value: (row: Row) => string | null, more: More<Row> = {}): TableColumn<Row> => ({
        key,
        title,
        value,
        cell: (row) => <span className="whitespace-nowrap">{displayDate(value(row))}</span>,
        ...more,
      }),
      count: <Row,>(key: string, title: string, value: (row: Row) => number, more: More<Row> = {}): TableColumn<Row> => ({
        key,
        title,
        value,
        number: whole,
        adds: true,
        cell: (row) => whole(value(row)),
        ...more,
      }),
      unitCost: <Row,>(key: string, title: string, value: (row: Row) => number, more: More<Row> = {}): TableColumn<Row> => ({
        key,
        title,
        value,
        number: showUnitCostFull,
        cell: (row) => showUnitCostFull(value(row)),
        ...more,
      }),
      amount: <Row,>(key: string, title: string, value: (row: Row) => number, more: Of<Row> & More<Row> = {}) =>
        figure(key, title, value, { unit: 'money', number: exact, adds: true, ...more }),
      percent: <Row,>(key: string, title: string, value: (row: Row) => number, more: Of<Row> & More<Row> = {}) =>
        figure(key, title, value, { unit: 'percent', number: displayPercent, ...more }),
      quantity: <Row,>(key: string, title: string, value: (row: Row) => number, more: Of<Row> & More<Row> = {}) =>
        figure(key, title, value, { unit: 'hours', number: displayQuantity, adds: true, ...more }),
    };
  }, [show, exact, withMonth]);
}

import { priceCalls } from '../../wire/prices';
import { fileText } from '../book/writeFile';
import { priceItems } from './bookFiles';
import { handle } from '../http/handlers';
import { oneFile } from '../http/upload';
import { importPrices } from './importPrices';
import { achieved, priceListView, priceHistory } from './priceList';
import { movePrices, previewPriceMove, removeBuildUp, saveBuildUp, savePriceItems } from './prices';
import { previewPricedParts, savePricedParts } from './savePricedParts';

const LARGEST_LIST = 20_000_000;

export const priceHandlers = handle(priceCalls, {
  priceList: (sql) => priceListView(sql),
  achieved: (sql) => achieved(sql),
  priceItemsCsv: async (database) => ({
    type: 'text/csv',
    name: 'price_items.csv',
    content: await database.read((sql) => fileText(sql, priceItems)),
  }),
  priceHistory: (sql, { code }) => priceHistory(sql, code),
  savePriceItems: (command, { body }) => savePriceItems(command, body),
  importPrices: {
    limits: { files: 1, fileSize: LARGEST_LIST, total: LARGEST_LIST + 10_000 },
    run: async (command, _args, received) => ({
      count: await importPrices(command, oneFile(received, 'a CSV file with the columns of price_items.csv').path),
    }),
  },
  previewPriceMove: (database, { body }) => previewPriceMove(database, body),
  movePrices: async (command, { body }) => ({ count: await movePrices(command, body) }),
  previewPricedParts: (database, { body }) => previewPricedParts(database, body),
  savePricedParts: (command, { body }) => savePricedParts(command, body),
  saveBuildUp: (command, { body }) => saveBuildUp(command, body),
  removeBuildUp: (command, { code }) => removeBuildUp(command, code),
});

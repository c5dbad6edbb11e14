import { DataTypes, type Model, type ModelAttributeColumnOptions, type ModelStatic, type Sequelize } from 'sequelize';
import type { Field, Table } from './fields';

/** The Sequelize model of a table on one connection, made when it is first asked for. */
export function modelOn(sequelize: Sequelize, { name, fields }: Table): ModelStatic<Model> {
  if (sequelize.isDefined(name)) return sequelize.model(name);
  const columns = Object.entries(fields).map(([column, field]) => [column, attribute(column, field)]);
  return sequelize.define(name, Object.fromEntries(columns) as Record<string, ModelAttributeColumnOptions>, {
    tableName: name,
    timestamps: false,
  });
}

function attribute(column: string, { stored, nullable, key, among, filled }: Field<unknown>): ModelAttributeColumnOptions {
  return {
    type: stored === 'integer' ? DataTypes.INTEGER : DataTypes.TEXT,
    allowNull: nullable || (key === true && column === 'id'),
    primaryKey: key === true,
    autoIncrement: key === true && column === 'id' && stored === 'integer',
    ...(filled === undefined ? {} : { defaultValue: filled }),
    ...(among ? { validate: { isIn: [among as string[]] } } : {}),
  };
}

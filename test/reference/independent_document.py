"""Writes a document of ISO/IEC 26300 with an independent program (odfpy): values of every type, a formula, repeated cells, conditions of styles."""
import sys
from odf.opendocument import OpenDocumentSpreadsheet
from odf.style import Map, Style, TableCellProperties, TextProperties
from odf.table import CoveredTableCell, Table, TableCell, TableColumn, TableRow
from odf.text import P

document = OpenDocumentSpreadsheet()
low = Style(name="low", displayname="Low oxygen", family="table-cell")
low.addElement(TableCellProperties(backgroundcolor="#f6d5da"))
low.addElement(TextProperties(color="#7a1f2b", fontweight="bold"))
document.styles.addElement(low)
good = Style(name="good", displayname="Good", family="table-cell")
good.addElement(TableCellProperties(backgroundcolor="#cfe8dc"))
document.styles.addElement(good)
judged = Style(name="judged", family="table-cell")
judged.addElement(Map(condition="cell-content()<5", applystylename="low", basecelladdress="Readings.B2"))
judged.addElement(Map(condition="is-true-formula([.B2]>[.$B$2]*1.5)", applystylename="good", basecelladdress="Readings.B2"))
judged.addElement(Map(condition="cell-content-is-between(6,7.5)", applystylename="good", basecelladdress="Readings.B2"))
document.automaticstyles.addElement(judged)

table = Table(name="Readings")
table.addElement(TableColumn(numbercolumnsrepeated=4))


def row(*cells):
    made = TableRow()
    for cell in cells:
        made.addElement(cell)
    table.addElement(made)


def text(content, **more):
    cell = TableCell(valuetype="string", **more)
    cell.addElement(P(text=content))
    return cell


row(text("Station"), text("Oxygen"), text("Day"), text("Note"))
for at, oxygen in enumerate([4.9, 5, 7.4, 8.1]):
    row(
        text("Alder Weir"),
        TableCell(valuetype="float", value=oxygen, stylename="judged"),
        TableCell(valuetype="date", datevalue=f"2026-03-0{at + 1}"),
        TableCell(valuetype="float", value=oxygen * 2, formula="of:=[.B%d]*2" % (at + 2)),
    )
row(text("0042"), TableCell(valuetype="boolean", booleanvalue="true"), TableCell(valuetype="percentage", value=0.25), TableCell(numbercolumnsrepeated=16380))
row(text("across", numbercolumnsspanned=2, numberrowsspanned=1), CoveredTableCell())
last = TableRow(numberrowsrepeated=1000000)
last.addElement(TableCell(numbercolumnsrepeated=16384))
table.addElement(last)
document.spreadsheet.addElement(table)
document.save(sys.argv[1])

"""Writes a workbook of ISO/IEC 29500 with an independent program (openpyxl): every type of rule of 18.18.12, values of every type, formats, merges."""
import sys
from datetime import datetime
from openpyxl import Workbook
from openpyxl.formatting.rule import Rule, CellIsRule, ColorScaleRule, DataBarRule, FormulaRule, IconSetRule
from openpyxl.styles import Alignment, Border, Font, PatternFill, Side
from openpyxl.styles.differential import DifferentialStyle

book = Workbook()
sheet = book.active
sheet.title = "Readings"
sheet["A1"] = "Station readings, Wrenfold catchment"
sheet.merge_cells("A1:D1")
sheet["A1"].font = Font(bold=True, size=16, color="FF20304A")
sheet["A1"].alignment = Alignment(horizontal="center", vertical="center", wrap_text=True)
sheet.row_dimensions[1].height = 30
for column, label in enumerate(["Station", "Oxygen", "Day", "Share", "Good", "Code", "Twice"], 1):
    cell = sheet.cell(2, column, label)
    cell.fill = PatternFill("solid", fgColor="FFE8E0D0")
    cell.border = Border(bottom=Side("medium", color="FF806040"))
for at in range(3, 13):
    sheet.cell(at, 1, ["Alder Weir", "Birch Ford"][at % 2])
    sheet.cell(at, 2, at * 0.75).number_format = "0.0"
    sheet.cell(at, 3, datetime(2026, 3, at)).number_format = "d mmm yyyy"
    sheet.cell(at, 4, at / 20).number_format = "0.0%"
    sheet.cell(at, 5, at % 3 == 0)
    sheet.cell(at, 6, f"{at:04d}")
    sheet.cell(at, 7, f"=B{at}*2+SUM($B$3:B{at})")
sheet["B12"] = None
sheet["G12"] = "=1/0"
sheet.column_dimensions["A"].width = 22
sheet.freeze_panes = "B3"

red = DifferentialStyle(font=Font(color="FF7A1F2B", bold=True), fill=PatternFill(bgColor="FFF6D5DA"))


def rule(kind, **more):
    return Rule(type=kind, dxf=red, **more)


add = sheet.conditional_formatting.add
add("B3:B12", CellIsRule(operator="lessThan", formula=["5"], font=Font(italic=True), stopIfTrue=True))
add("B3:B12", CellIsRule(operator="between", formula=["$B$3", "7.5"], fill=PatternFill(bgColor="FFDDEEFF")))
add("B3:G12", FormulaRule(formula=['AND($A3="Alder Weir",B3<>"",{1,2}={1,2})'], font=Font(strike=True)))
add("A3:A12", rule("containsText", operator="containsText", text="Weir", formula=['NOT(ISERROR(SEARCH("Weir",A3)))']))
add("A3:A12", rule("notContainsText", operator="notContains", text="Weir", formula=['ISERROR(SEARCH("Weir",A3))']))
add("A3:A12", rule("beginsWith", operator="beginsWith", text="Al", formula=['LEFT(A3,2)="Al"']))
add("A3:A12", rule("endsWith", operator="endsWith", text="Ford", formula=['RIGHT(A3,4)="Ford"']))
add("B3:B12", rule("containsBlanks", formula=["LEN(TRIM(B3))=0"]))
add("B3:B12", rule("notContainsBlanks", formula=["LEN(TRIM(B3))>0"]))
add("G3:G12", rule("containsErrors", formula=["ISERROR(G3)"]))
add("G3:G12", rule("notContainsErrors", formula=["NOT(ISERROR(G3))"]))
for period in ["today", "yesterday", "tomorrow", "last7Days", "thisWeek", "lastWeek", "nextWeek", "thisMonth", "lastMonth", "nextMonth"]:
    add("C3:C12", rule("timePeriod", timePeriod=period, formula=["FLOOR(C3,1)=TODAY()"]))
add("B3:B12", rule("aboveAverage"))
add("B3:B12", rule("aboveAverage", aboveAverage=False, equalAverage=True))
add("B3:B12", rule("aboveAverage", stdDev=1))
add("B3:B12", rule("top10", rank=3))
add("B3:B12", rule("top10", rank=20, percent=True, bottom=True))
add("A3:A12", rule("uniqueValues"))
add("A3:A12", rule("duplicateValues"))
add("B3:B12", ColorScaleRule(start_type="min", start_color="FFC85A3C", mid_type="percentile", mid_value=50, mid_color="FFF2E3B3", end_type="max", end_color="FF2F7F86"))
add("D3:D12", DataBarRule(start_type="num", start_value=0, end_type="max", color="FF5B7FA6", showValue=False))
add("D3:D12", IconSetRule("3TrafficLights1", "percent", [0, 33, 67]))
add("D3:D12", IconSetRule("4Arrows", "num", [0, 0.2, 0.3, 0.4], reverse=True))
add("D3:D12", IconSetRule("5Quarters", "percentile", [0, 20, 40, 60, 80], showValue=False))
other = book.create_sheet("Other")
other["A1"] = "=Readings!B3"
book.save(sys.argv[1])

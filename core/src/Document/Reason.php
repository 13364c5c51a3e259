<?php

declare(strict_types=1);

namespace UpperPane\Core\Document;

/** Why something is refused, as every answer tells it. */
enum Reason: string
{
    case ArgumentsWrong = 'arguments.wrong';
    case BorderUnknown = 'border.unknown';
    case BudgetExceeded = 'budget.exceeded';
    case CalendarEvent = 'calendar.event';
    case CalendarSyntax = 'calendar.syntax';
    case CalendarTooLarge = 'calendar.too-large';
    case CalendarTooMany = 'calendar.too-many';
    case CsvColumn = 'csv.column';
    case CsvEmpty = 'csv.empty';
    case CsvFigure = 'csv.figure';
    case CsvLong = 'csv.long';
    case CsvTwice = 'csv.twice';
    case DataKind = 'data.kind';
    case DataSyntax = 'data.syntax';
    case DataTooLarge = 'data.too-large';
    case DataUnknown = 'data.unknown';
    case DocumentTooLarge = 'document.too-large';
    case EdidChecksum = 'edid.checksum';
    case EdidHeader = 'edid.header';
    case EdidLength = 'edid.length';
    case EdidRange = 'edid.range';
    case FaceRefused = 'face.refused';
    case FacesMissing = 'faces.missing';
    case FieldMissing = 'field.missing';
    case FieldUnknown = 'field.unknown';
    case FigureSyntax = 'figure.syntax';
    case FileMissing = 'file.missing';
    case FormatUnknown = 'format.unknown';
    case IdTwice = 'id.twice';
    case JsonSyntax = 'json.syntax';
    case KindUnbuilt = 'kind.unbuilt';
    case MediaMissing = 'media.missing';
    case MessageSyntax = 'message.syntax';
    case MoveRule = 'move.rule';
    case OccurrenceUnknown = 'occurrence.unknown';
    case PathSteps = 'path.steps';
    case PathSyntax = 'path.syntax';
    case PatternSyntax = 'pattern.syntax';
    case RecipeAreas = 'recipe.areas';
    case RecipeMissing = 'recipe.missing';
    case RecipeNone = 'recipe.none';
    case RefCycle = 'ref.cycle';
    case RefUnknown = 'ref.unknown';
    case RruleWrong = 'rrule.wrong';
    case ScxmlSyntax = 'scxml.syntax';
    case ScxmlUnsuited = 'scxml.unsuited';
    case TracksSyntax = 'tracks.syntax';
    case TracksTooLong = 'tracks.too-long';
    case TypeWrong = 'type.wrong';
    case ValueRange = 'value.range';
    case ValueUnknown = 'value.unknown';
    case ZoneApart = 'zone.apart';
    case ZoneUnknown = 'zone.unknown';
}

// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report.h"

#include <QBuffer>
#include <QDate>
#include <QPageLayout>
#include <QPageSize>
#include <cmath>
#include <map>
#include <memory>
#include <set>

#include "app/document/journal.h"
#include "app/print/pdf.h"
#include "app/print/printed_pages.h"
#include "app/stations/page.h"
#include "app/theme.h"
#include "app/tongue.h"
#include "app/widgets/findings.h"
#include "app/widgets/leg_switch.h"
#include "core/assess/compare.h"
#include "core/assess/loading_state.h"
#include "core/io/csv.h"
#include "core/io/variants.h"
#include "core/model/locate.h"
#include "core/tasks/words.h"

namespace kranich::app {
namespace {

constexpr double board_wide = 850, board_high = 620;  //!< px, about as on the screen
constexpr double board_scale = PrintedPages::width / board_wide;

//! A board as it is drawn on the screen, across the page; none: its room.
void print_board(PrintedPages& paper, Board* board) {
  const QRectF at = paper.room(board_high * board_scale);
  if (paper.dry() || !board) return;
  QPainter& p = paper.painter();
  p.save();
  p.translate(at.topLeft());
  p.scale(board_scale, board_scale);
  board->print(p, {board_wide, board_high}, board_scale / report_px_per_mm);
  p.setPen(QPen(QColor("#d0c9b8"), 1));
  p.setBrush(Qt::NoBrush);
  p.drawRect(QRectF(0, 0, board_wide, board_high));
  p.restore();
}

//! A finding with what it says, and with the numbers behind it where they are wanted.
void print_finding(PrintedPages& paper, const Document& document, const Finding& f, bool working) {
  const UnitSystem units = document.units();
  constexpr double name = 250, value = 90, verdict = 62;
  QString limit = f.limit.set()
                      ? QObject::tr("limit %1 – %2").arg(limit_text(f, units), text_of(f.limit.source, units))
                      : QString();
  if (!f.loading.empty())
    limit += (limit.isEmpty() ? QString() : QStringLiteral("; ")) +
             QObject::tr("loading: %1").arg(QString::fromStdString(f.loading));
  paper.need(working ? 40 : 18);
  paper.row({name, value, verdict, PrintedPages::width - name - value - verdict},
            {{title_of(f, units), true},
             {value_text(f, units), true},
             {text_of(verdict_word(f.verdict)), true, Theme::light().of(f.verdict)},
             {limit}},
            8, false);
  QStringList more;
  if (working) {
    QStringList numbers;
    for (const auto& w : f.working)
      numbers << QStringLiteral("%1 = %2").arg(text_of(w.name, units), document.say(w.si, w.kind));
    more << text_of(f.info().formula) + (numbers.isEmpty() ? QString() : ":  " + numbers.join("; "));
    if (const Spread* box = document.spread_of(f); box && box->high > box->low)
      more << QObject::tr("over the build tolerances %1 … %2 %3")
                  .arg(document.say(box->low, f.info().kind), document.say(box->high, f.info().kind),
                       over_box_text(f, box));
  }
  if (!f.assumption.empty()) more << text_of(f.assumption, units);
  if (!f.remark.empty()) more << text_of(f.remark, units);
  if (working) more << QObject::tr("source: %1").arg(text_of(f.info().source));
  paper.text(more.join("; "), 7, false, Qt::darkGray, 14);
  paper.space(2);
}

void print_findings(PrintedPages& paper, const Document& document, const Assessment& assessment,
                    Station station, bool working) {
  QStringList noted;
  for (const Finding* f : worst_of_each(assessment)) {
    if (f->info().station != station) continue;
    if (f->verdict == Verdict::noted)
      noted << QStringLiteral("%1 %2").arg(title_of(*f, document.units()), value_text(*f, document.units()));
    else
      print_finding(paper, document, *f, working);
  }
  if (!noted.isEmpty()) paper.text(QObject::tr("Also: %1.").arg(noted.join("; ")), 7.5, false, Qt::darkGray);
}

bool has_findings(const Document& document, Station station) {
  const auto& all = document.assessment().findings;
  return std::any_of(all.begin(), all.end(), [&](const Finding& f) { return f.info().station == station; });
}

//! What was done, read and decided: proofs, what is no proof yet, picks between schools, the last entries.
void work_part(PrintedPages& paper, Document& document) {
  Journal& journal = document.journal();
  const auto& progress = journal.progress();
  const UnitSystem units = document.units();
  for (const auto& proof : progress.proofs)
    paper.text(proof.flight ? QObject::tr("%1: flight-proved.").arg(sentence_of(proof.words, units))
               : proof.bench
                   ? QObject::tr("%1: bench-proved, not flight-proved.").arg(sentence_of(proof.words, units))
                   : QObject::tr("%1: not proved yet.").arg(sentence_of(proof.words, units)),
               9, false, proof.bench ? Theme::light().holds : Qt::black);
  int passed = 0, of = 0;
  QStringList lines, picks;
  for (const auto& b : progress.boxes) {
    if (b.state == tasks::State::standing) continue;
    ++of;
    passed += b.passed();
    QString what =
        QStringLiteral("%1, %2").arg(text_of(tasks::stage_title(b.task->stage)), text_of(b.task->name()));
    if (!b.piece.words.empty()) what += QStringLiteral(" (%1)").arg(text_of(b.piece.words, units));
    if (b.last && !b.last->choice.empty())
      picks << QStringLiteral("%1: %2").arg(what, text_of(b.last->choice));
    if (b.state == tasks::State::off) {
      for (const auto& r : b.last->readings) {
        if (r.compared != tasks::Compared::outside) continue;
        tasks::Read foretold = r;
        foretold.value = r.foretold;
        lines << QObject::tr("%1: %2 read %3%4")
                     .arg(what, text_of(r.name), text_of(tasks::said(r), units),
                          std::isfinite(r.foretold)
                              ? QObject::tr(", foretold %1").arg(text_of(tasks::said(foretold), units))
                              : QString());
      }
    } else if (b.state == tasks::State::tried) {
      lines << QObject::tr("%1: tried before its time, no proof: %2").arg(what, text_of(b.last->reason));
    } else if (b.state == tasks::State::aside) {
      lines << QObject::tr("%1: set aside: %2").arg(what, text_of(b.last->reason));
    } else if (b.state == tasks::State::again) {
      lines << QObject::tr("%1: open again: %2").arg(what, text_of(b.changed[0], units));
    }
  }
  paper.text(QObject::tr("%1 of %2 steps that this design needs are done.").arg(passed).arg(of), 9);
  for (const QString& l : lines) paper.text(l, 9, false, Theme::light().fails);
  if (!picks.isEmpty()) paper.text(QObject::tr("Decided: %1.").arg(picks.join("; ")), 9);
  const auto& valid = journal.history().valid();
  for (size_t i = 0; i < valid.size() && i < 40; ++i) {
    const tasks::Entry& e = *valid[valid.size() - 1 - i];
    QStringList told;
    for (const Text& t : tasks::told(e)) told << text_of(t, units);
    paper.text(
        QStringLiteral("%1  %2  %3: %4")
            .arg(text_of(e.day()), text_of(e.who), text_of(tasks::heading_of(e), units), told.join("; ")),
        8, false, Qt::darkGray);
  }
}

//! Cautions of the kinds of work that this aircraft asks for.
void print_cautions(PrintedPages& paper, Document& document) {
  const bool model = document.design().is_model();
  paper.text(model ? model_caution() : planning_caution(), 9.5, true, Theme::light().fails);
  std::set<const tasks::Hazard*> met;
  for (const auto& b : document.journal().progress().boxes)
    for (const tasks::Hazard* h : b.task->hazards) met.insert(h);
  for (const tasks::Hazard& h : tasks::all_hazards())
    if (met.count(&h)) paper.text(text_of(h.words), 8, false, Qt::black, 10);
}

void overview(PrintedPages& paper, Document& document, const Assessment& assessment) {
  const UnitSystem units = document.units();
  int tally[5]{};
  const auto worst = worst_of_each(assessment);
  for (const Finding* f : worst) ++tally[static_cast<int>(f->verdict)];
  const auto of = [&](Verdict v) { return tally[static_cast<int>(v)]; };
  paper.text(QObject::tr("%1 checks fail, %2 are tight, %3 hold, %4 are not known for want of a number.")
                 .arg(of(Verdict::fails))
                 .arg(of(Verdict::tight))
                 .arg(of(Verdict::holds))
                 .arg(of(Verdict::unknown)),
             9.5, true);
  for (const Verdict v : {Verdict::fails, Verdict::unknown, Verdict::tight}) {
    QStringList list;
    for (const Finding* f : worst)
      if (f->verdict == v)
        list << (std::isfinite(f->value)
                     ? QStringLiteral("%1 %2").arg(title_of(*f, units), value_text(*f, units))
                     : title_of(*f, units));
    if (!list.isEmpty())
      paper.text(QStringLiteral("%1: %2.").arg(capitalised(text_of(verdict_word(v))), list.join("; ")), 8,
                 false, Theme::light().of(v));
  }
  const Design& d = document.design();
  paper.space(6);
  constexpr double name = 200, mass = 120, at = 120;
  paper.row({name, mass, at, PrintedPages::width - name - mass - at},
            {{QObject::tr("Loading"), true},
             {QObject::tr("Mass"), true},
             {QObject::tr("CG, gear down"), true},
             {QObject::tr("Aboard"), true}},
            8);
  for (const Loading& l : d.loadings) {
    const LoadingState* s = assessment.find(l.name);
    QStringList aboard;
    for (const Aboard& x : l.aboard) aboard << QString::fromStdString(x.item);
    const bool known = s && s->mass.known();
    paper.row({name, mass, at, PrintedPages::width - name - mass - at},
              {{QString::fromStdString(l.name)},
               {known ? document.say(s->mass.down.mass, Kind::mass) : QStringLiteral("?")},
               {known ? document.say(s->mass.down.at.x(), Kind::length) : QStringLiteral("?")},
               {aboard.join(", ")}},
              8);
  }
}

//! The design now against the pinned state and its variants: what was changed, and what that did.
void compared(PrintedPages& paper, Document& document) {
  struct Column {
    QString name;
    Design design;
    Assessment assessment;
  };
  std::vector<Column> columns;
  columns.push_back({QObject::tr("now"), document.design(), document.assessment()});
  if (document.pinned())
    columns.push_back({QObject::tr("pinned"), *document.pinned(), *document.pinned_assessment()});
  for (const auto& v : document.design().variants) {
    if (columns.size() == 4) break;  // as many as a page is wide
    if (const auto design = variant(document.design(), v.name))
      columns.push_back({QString::fromStdString(v.name), *design, assess(*design)});
  }
  const UnitSystem units = document.units();
  for (size_t i = 1; i < columns.size(); ++i) {
    QStringList list;
    for (const Changed& c : changed_inputs(columns[i].design, columns[0].design))
      list << QStringLiteral("%1 (%2): %3 → %4")
                  .arg(text_of(c.title), word_of_file(c.path), document.say(c.before, c.kind),
                       document.say(c.after, c.kind));
    paper.text(QObject::tr("From “%1” to now: %2.")
                   .arg(columns[i].name, list.isEmpty() ? QObject::tr("no number differs") : list.join("; ")),
               8);
  }
  paper.space(6);
  std::vector<const Assessment*> assessments;
  for (const auto& c : columns) assessments.push_back(&c.assessment);
  const double figure_wide = 240;
  const double each = (PrintedPages::width - figure_wide) / static_cast<double>(columns.size());
  std::vector<double> widths(columns.size() + 1, each);
  widths[0] = figure_wide;
  std::vector<PrintedPages::Cell> head{{QObject::tr("Figure"), true}};
  for (const auto& c : columns) head.push_back({c.name, true});
  paper.row(widths, head, 8);
  for (const CompareRow& row : compare(assessments)) {
    if (!(row.difference > 0)) break;
    const auto any =
        std::find_if(row.findings.begin(), row.findings.end(), [](const auto& f) { return !!f; });
    std::vector<PrintedPages::Cell> cells{{title_of(**any, units)}};
    for (const auto& f : row.findings) {
      if (!f)
        cells.push_back({QStringLiteral("–")});
      else if (f->limit.set())
        cells.push_back(
            {QStringLiteral("%1  %2").arg(value_text(*f, units), text_of(verdict_word(f->verdict))), false,
             Theme::light().of(f->verdict)});
      else
        cells.push_back({value_text(*f, units)});
    }
    paper.row(widths, cells, 8);
  }
}

//! What is still open, limits of the builder's own, drives that were looked at and why they were not taken.
void decided(PrintedPages& paper, Document& document) {
  const Design& d = document.design();
  for (const Decision& x : d.decisions)
    paper.text(QObject::tr("Not decided: %1, waits for %2%3.")
                   .arg(text_of(x.name), text_of(x.waits_for),
                        x.spare.known()
                            ? QObject::tr("; to spare until then %1").arg(document.say(x.spare, Kind::length))
                            : QString()),
               9);
  for (const OwnLimit& x : d.own_limits) {
    const Measure& m = measure(x.measure);
    const QString low =
        x.lower.known() ? QObject::tr("at least %1").arg(document.say(x.lower, m.kind)) : QString();
    const QString high =
        x.upper.known() ? QObject::tr("at most %1").arg(document.say(x.upper, m.kind)) : QString();
    paper.text(QObject::tr("Limit of your own: %1 %2. Reason: %3")
                   .arg(text_of(m.title), QStringList{low, high}.join(" ").trimmed(),
                        x.reason.empty() ? QObject::tr("none given") : text_of(x.reason)),
               9);
  }
  for (const Leg& leg : d.gear.legs)
    for (const DriveOffer& o : leg.retraction.drive_offers)
      paper.text(QObject::tr("Drive for the %1, %2: %3")
                     .arg(text_of(d.leg_word(leg), d.units), text_of(o.sold.name),
                          o.rejected.empty() ? QObject::tr("still open")
                                             : QObject::tr("not taken, %1").arg(text_of(o.rejected))),
                 9);
  if (!d.sequence.order.empty())
    paper.text(QObject::tr("Order of the legs: %1").arg(text_of(d.sequence.order)), 9);
}

bool anything_decided(const Design& d) {
  return !d.decisions.empty() || !d.own_limits.empty() || !d.sequence.order.empty() ||
         std::any_of(d.gear.legs.begin(), d.gear.legs.end(),
                     [](const Leg& l) { return !l.retraction.drive_offers.empty(); });
}

//! A value as it is read, with where it comes from if that matters.
QString written(const Document& document, const NamedValue& v) {
  const auto given = given_at(document.design(), v.path);
  if (!given || !given->known() || !v.kind) {
    const QString text = text_of(v.written);
    return text.size() > 400 ? QObject::tr("(%1 letters of text)").arg(text.size()) : text;
  }
  QString s = document.say(given->si, *v.kind);
  if (given->tolerance > 0) s += QStringLiteral(" ± ") + document.say(given->tolerance, *v.kind);
  switch (given->origin) {
    case Origin::guessed:
      return QObject::tr("%1 (guessed)").arg(s);
    case Origin::measured:
      return QObject::tr("%1 (measured)").arg(s);
    case Origin::estimated:
      return QObject::tr("%1 (estimated)").arg(s);
    case Origin::undecided:
      return QObject::tr("%1 (not decided)").arg(s);
    case Origin::missing:
    case Origin::by_default:
    case Origin::plan:
      break;
  }
  return s;
}

//! Every number and choice of the design in two columns, under where it stands in the file.
void numbers(PrintedPages& paper, const Document& document) {
  constexpr double title = 205, value = PrintedPages::width / 2 - title;
  std::vector<PrintedPages::Cell> line;
  const auto put = [&] {
    if (line.empty()) return;
    line.resize(4);
    paper.row({title, value, title, value}, line, 7);
    line.clear();
  };
  std::string before;
  for (const NamedValue& v : all_values(document.design())) {
    if (v.written.empty()) continue;
    // What stands in one object of the file, and the members of one list, belong together.
    std::string group = v.path.substr(0, v.path.rfind('/'));
    const auto last = group.rfind('/');
    if (last != std::string::npos && last + 1 < group.size() &&
        std::isdigit(static_cast<unsigned char>(group[last + 1])))
      group.resize(last);
    if (group != before) {
      put();
      paper.space(4);
      paper.need(34);
      paper.text(word_of_file(group.empty() ? "/" : group), 7, false, Qt::darkGray);
      before = group;
    }
    line.push_back({text_of(v.title)});
    line.push_back({written(document, v), true});
    if (line.size() == 4) put();
  }
  put();
}

//! A station's drawings, leg by leg where it shows one at a time, and its findings.
void station_part(PrintedPages& paper, Document& document, const Assessment& assessment, Station station,
                  bool working) {
#define KRANICH_STATION(id, title, uses) {Station::id, &make_##id##_page},
  static const std::map<Station, StationPage* (*)(Document&)> makers{KRANICH_STATIONS(KRANICH_STATION)};
#undef KRANICH_STATION
  // A page of its own, that nobody sees: what is shown in the window stays as it is.
  const std::unique_ptr<StationPage> page(paper.dry() ? nullptr : makers.at(station)(document));
  QList<QPushButton*> legs;
  if (page)
    if (auto* of_legs = page->findChild<LegSwitch*>()) legs = of_legs->findChildren<QPushButton*>();
  const bool by_leg = station == Station::spring || station == Station::leg || station == Station::swing ||
                      station == Station::drive;
  const auto& all = document.design().gear.legs;
  size_t count = 1;
  if (by_leg) count = std::min<size_t>(std::max<size_t>(all.size(), 1), 6);
  for (size_t i = 0; i < count; ++i) {
    const bool needed = !by_leg || all.empty() || station == Station::spring || station == Station::leg ||
                        all[i].retraction.fitted;
    if (!needed) continue;
    if (page && legs.size() > static_cast<int>(i) && by_leg) legs[static_cast<int>(i)]->click();
    if (by_leg && count > 1)
      paper.heading(capitalised(text_of(document.design().legs_word(all[i]), document.units())), 2,
                    board_high * board_scale);
    print_board(paper, page ? page->board() : nullptr);
  }
  print_findings(paper, document, assessment, station, working);
}

struct Part {
  ReportPart part;
  std::function<void(PrintedPages&)> print;
};

std::vector<Part> parts_of(Document& document, const Assessment& assessment, bool working) {
  std::vector<Part> list;
  list.push_back({{QStringLiteral("overview"), QObject::tr("Overview")},
                  [&](PrintedPages& p) { overview(p, document, assessment); }});
  for (int i = 0; i < station_count; ++i) {
    const auto station = static_cast<Station>(i);
    if (station == Station::bench || !has_findings(document, station)) continue;
    list.push_back({{word_of_file(station_id(station)), text_of(station_title(station))},
                    [&, station, working](PrintedPages& p) {
                      station_part(p, document, assessment, station, working);
                    }});
  }
  if (document.pinned() || !document.design().variants.empty())
    list.push_back({{QStringLiteral("compared"), QObject::tr("Before and after")},
                    [&](PrintedPages& p) { compared(p, document); }});
  if (anything_decided(document.design()))
    list.push_back({{QStringLiteral("decided"), QObject::tr("Decisions and reasons")},
                    [&](PrintedPages& p) { decided(p, document); }});
  if (!document.journal().book().entries.empty())
    list.push_back({{QStringLiteral("work"), QObject::tr("The work, from the Book")},
                    [&](PrintedPages& p) { work_part(p, document); }});
  list.push_back({{QStringLiteral("numbers"), QObject::tr("Every number of the design")},
                  [&](PrintedPages& p) { numbers(p, document); }});
  return list;
}

//! The book, or a count of its pages: what the contents turn out to be.
std::vector<ContentsLine> print_book(QPdfWriter& writer, Document& document, const std::vector<Part>& parts,
                                     const ReportChoice& choice, const std::vector<ContentsLine>& contents,
                                     bool dry, const std::function<bool(double)>& went_on) {
  const Design& d = document.design();
  PrintedPages paper(writer, text_of(d.about.name),
                     QObject::tr("change %1 · %2 · %3 · loading “%4”")
                         .arg(text_of(d.about.revision), text_of(d.about.owner),
                              QDate::currentDate().toString(Qt::ISODate), document.loading_name()),
                     dry);
  paper.text(text_of(d.about.name), 22, true);
  if (!d.about.summary.empty()) paper.text(text_of(d.about.summary), 11);
  paper.space(8);
  print_cautions(paper, document);
  paper.space(10);
  paper.text(QObject::tr("Contents"), 12, true);
  paper.list(contents);
  size_t done = 0;
  for (const Part& part : parts) {
    if (choice.without.count(part.part.id)) continue;
    paper.next();
    paper.heading(part.part.title, 1);
    part.print(paper);
    ++done;
    if (!dry && went_on && !went_on(static_cast<double>(done) / static_cast<double>(parts.size()))) break;
  }
  return paper.contents();
}

}  // namespace

QString planning_caution() {
  return QObject::tr(
      "These figures are for planning. Airworthiness is decided by the local authority's rules and by "
      "licensed or authorised persons; structure that carries people needs their check and a proof test.");
}
QString model_caution() {
  return QObject::tr(
      "These figures are for planning. A model has mass and speed enough to hurt: fly it by the authority's "
      "and your club's rules, try it with nobody in front of it or below, gear left down on the first "
      "flight.");
}

std::vector<ReportPart> report_parts(const Document& document) {
  std::vector<ReportPart> list;
  for (const Part& p : parts_of(const_cast<Document&>(document), document.assessment(), true))
    list.push_back(p.part);
  return list;
}

std::optional<QString> write_report(const Document& document, const QString& path, const ReportChoice& choice,
                                    const std::function<bool(double)>& went_on) {
  const bool was_dark = Theme::now().dark;
  if (was_dark) Theme::choose(false);           // paper is white
  auto& own = const_cast<Document&>(document);  // pages are made that could edit; here they only draw
  // With what the window leaves to the background: the faults proved.
  const Assessment assessment = assess(document.design(), {}, &document.assessment());
  const auto parts = parts_of(own, assessment, choice.working);
  bool given_up = false;
  const auto go = [&](double share) {
    given_up = went_on && !went_on(share);
    return !given_up;
  };
  const auto lay = [&](QPdfWriter& writer) {
    writer.setPageLayout(
        QPageLayout(QPageSize(QPageSize::A4), QPageLayout::Portrait, QMarginsF(), QPageLayout::Millimeter));
    writer.setResolution(report_dpi);
    writer.setTitle(QString::fromStdString(document.design().about.name));
  };
  // Counted twice: the contents move what comes after them.
  std::vector<ContentsLine> contents;
  for (int i = 0; i < 2; ++i) {
    QBuffer nowhere;
    nowhere.open(QIODevice::WriteOnly);
    QPdfWriter writer(&nowhere);
    lay(writer);
    contents = print_book(writer, own, parts, choice, contents, true, {});
  }
  const auto trouble = write_pdf(path, [&](QPdfWriter& writer) {
    lay(writer);
    print_book(writer, own, parts, choice, contents, false, go);
    return !given_up;
  });
  if (was_dark) Theme::choose(true);
  return trouble;
}

std::optional<QString> write_figures(const Document& document, const QString& path) {
  if (const auto why = write_file_atomically(path.toStdString(), findings_to_csv(document.assessment())))
    return QObject::tr("%1: %2").arg(path, QString::fromStdString(*why));
  return std::nullopt;
}

}  // namespace kranich::app

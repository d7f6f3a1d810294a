// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/print/report.h"

#include <QDate>
#include <QFontMetricsF>
#include <QPageLayout>
#include <QPageSize>
#include <QPainter>
#include <cmath>

#include "app/document/journal.h"
#include "app/drawing/panes.h"
#include "app/drawing/swing_pane.h"
#include "app/print/pdf.h"
#include "app/theme.h"
#include "app/widgets/findings.h"
#include "core/assess/swing_state.h"
#include "core/io/csv.h"
#include "core/tasks/words.h"

namespace kranich::app {
namespace {

//! One A4 page after another, in millimetres with the origin at the paper's corner.
class PrintedPage {
 public:
  PrintedPage(QPdfWriter& writer, const Document& document)
      : writer_(writer), document_(document), p_(&writer) {
    p_.scale(dots_per_mm, dots_per_mm);
    head();
  }
  QPainter& painter() { return p_; }
  static constexpr double dots_per_mm = 1200 / 25.4;
  static constexpr double left = 18, right = 192, bottom = 280;
  double y = 0;

  void need(double height) {
    if (y + height <= bottom) return;
    writer_.newPage();
    ++page_;
    head();
  }
  void text(const QString& s, double mm_high, bool bold = false, const QColor& colour = Qt::black) {
    const QFont f = font(mm_high, bold);
    p_.setFont(f);
    p_.setPen(colour);
    const QFontMetricsF m(f, p_.device());
    const QRectF box = m.boundingRect(QRectF(0, 0, right - left, 300), Qt::TextWordWrap, s);
    need(box.height());
    p_.drawText(QRectF(left, y, right - left, box.height() + 1), Qt::TextWordWrap, s);
    y += box.height() + 0.25 * mm_high;
  }
  static QFont font(double mm_high, bool bold) {
    QFont f(QStringLiteral("B612"));
    f.setPixelSize(std::max(1, static_cast<int>(std::lround(mm_high))));
    f.setBold(bold);
    return f;
  }

 private:
  void head() {
    y = 14;
    const Design& d = document_.design();
    text(QObject::tr("%1 – %2").arg(QString::fromStdString(d.about.name),
                                    QString::fromStdString(d.about.summary)),
         5, true);
    text(QObject::tr("change %1 · %2 · %3 · loading “%4” · page %5")
             .arg(QString::fromStdString(d.about.revision), QString::fromStdString(d.about.owner),
                  QDate::currentDate().toString(Qt::ISODate), document_.loading_name())
             .arg(page_),
         3, false, Qt::darkGray);
    p_.setPen(QPen(Qt::black, 0.3));
    p_.drawLine(QPointF(left, y + 0.5), QPointF(right, y + 0.5));
    y += 3;
  }
  QPdfWriter& writer_;
  const Document& document_;
  QPainter p_;
  int page_ = 1;
};

template <class P>
void draw_pane(PrintedPage& paper, P& pane, const QRectF& area) {
  const double unit = 0.24;  // mm for what is a pixel on the screen
  const QRectF inner = area.marginsRemoved(pane.margins() * unit);
  const Frame frame(inner, pane.to_scale() ? pane.bounds() : QRectF(0, 0, inner.width(), inner.height()));
  if (!frame.valid()) return;
  paper.painter().save();
  paper.painter().setClipRect(area);
  Sheet sheet(paper.painter(), frame, unit);
  pane.draw(sheet);
  paper.painter().restore();
}

void findings_table(PrintedPage& paper, const Document& document) {
  QPainter& p = paper.painter();
  const double row = 4.6;
  paper.need(14);
  paper.text(QObject::tr("Findings, worst first, over every loading"), 4, true);
  const double columns[]{PrintedPage::left, 80, 101, 133, 146};
  QStringList noted;
  for (const Finding* f : worst_of_each(document.assessment())) {
    if (f->verdict == Verdict::noted) {
      noted << QStringLiteral("%1 %2").arg(title_of(*f, document.units()), value_text(*f, document.units()));
      continue;
    }
    paper.need(row);
    const double y = paper.y;
    p.setFont(PrintedPage::font(3, false));
    p.setPen(Qt::black);
    const auto cell = [&](int c, const QString& s, const QColor& colour = Qt::black, bool bold = false) {
      const double x = columns[c];
      const double width = (c < 4 ? columns[c + 1] : PrintedPage::right) - x - 1.5;
      p.setFont(PrintedPage::font(3, bold));
      p.setPen(colour);
      p.drawText(QRectF(x, y, width, row), Qt::AlignLeft | Qt::AlignVCenter,
                 QFontMetricsF(p.font(), p.device()).elidedText(s, Qt::ElideRight, width));
    };
    cell(0, title_of(*f, document.units()));
    cell(1, value_text(*f, document.units()), Qt::black, true);
    cell(2, limit_text(*f, document.units()));
    cell(3, text_of(verdict_word(f->verdict)), Theme::light().of(f->verdict), true);
    cell(4, f->remark.empty() ? text_of(f->loading) : text_of(f->remark, document.units()), Qt::darkGray);
    p.setPen(QPen(QColor("#d0c9b8"), 0.1));
    p.drawLine(QPointF(PrintedPage::left, y + row), QPointF(PrintedPage::right, y + row));
    paper.y += row;
  }
  // Figures without a limit, run together.
  paper.need(30);
  p.setFont(PrintedPage::font(2.7, false));
  p.setPen(Qt::darkGray);
  const QString all = QObject::tr("Also: %1.").arg(noted.join("; "));
  const QRectF room(PrintedPage::left, paper.y + 1.5, PrintedPage::right - PrintedPage::left, 60);
  const QRectF used = p.boundingRect(room, Qt::TextWordWrap, all);
  p.drawText(room, Qt::TextWordWrap, all);
  paper.y += used.height() + 3;
}

//! What was done, read and decided: proofs, what is no proof yet, picks between schools, the last entries.
void work_section(PrintedPage& paper, Document& document) {
  Journal& journal = document.journal();
  if (journal.book().entries.empty()) return;
  const auto& progress = journal.progress();
  const UnitSystem units = document.units();
  paper.y += 3;
  paper.need(30);
  paper.text(QObject::tr("The work, from the Book"), 4, true);
  for (const auto& proof : progress.proofs)
    paper.text(proof.flight ? QObject::tr("%1: flight-proved.").arg(sentence_of(proof.words, units))
               : proof.bench
                   ? QObject::tr("%1: bench-proved, not flight-proved.").arg(sentence_of(proof.words, units))
                   : QObject::tr("%1: not proved yet.").arg(sentence_of(proof.words, units)),
               3, false, proof.bench ? Theme::light().holds : Qt::black);
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
  paper.text(QObject::tr("%1 of %2 steps that this design needs are done.").arg(passed).arg(of), 3);
  for (const QString& l : lines) paper.text(l, 3, false, Theme::light().fails);
  if (!picks.isEmpty()) paper.text(QObject::tr("Decided: %1.").arg(picks.join("; ")), 3);
  const auto& valid = journal.history().valid();
  for (size_t i = 0; i < valid.size() && i < 12; ++i) {
    const tasks::Entry& e = *valid[valid.size() - 1 - i];
    QStringList told;
    for (const Text& t : tasks::told(e)) told << text_of(t, units);
    paper.text(
        QStringLiteral("%1  %2  %3: %4")
            .arg(text_of(e.day()), text_of(e.who), text_of(tasks::heading_of(e), units), told.join("; ")),
        2.7, false, Qt::darkGray);
  }
}

}  // namespace

QString planning_caution() {
  return QObject::tr(
      "These figures are for planning. Airworthiness is decided by the local authority's rules and by "
      "licensed or authorised persons; structure that carries people needs their check and a proof test.");
}

std::optional<QString> write_report(const Document& document, const QString& path) {
  const bool was_dark = Theme::now().dark;
  if (was_dark) Theme::choose(false);  // paper is white
  const auto trouble = write_pdf(path, [&](QPdfWriter& writer) {
    writer.setPageLayout(
        QPageLayout(QPageSize(QPageSize::A4), QPageLayout::Portrait, QMarginsF(), QPageLayout::Millimeter));
    writer.setResolution(1200);
    writer.setTitle(QString::fromStdString(document.design().about.name));
    PrintedPage paper(writer, document);
    paper.text(planning_caution(), 3, true, Theme::light().fails);
    paper.y += 1;
    auto& own = const_cast<Document&>(document);  // panes are made for pages that edit; here they only draw
    SidePane side(own, Overlay::place);
    FrontPane front(own);
    PlanPane plan(own);
    const double w = PrintedPage::right - PrintedPage::left;
    draw_pane(paper, side, {PrintedPage::left, paper.y, w, 78});
    draw_pane(paper, front, {PrintedPage::left, paper.y + 79, w / 2 - 1, 56});
    draw_pane(paper, plan, {PrintedPage::left + w / 2 + 1, paper.y + 79, w / 2 - 1, 56});
    paper.y += 138;
    findings_table(paper, document);
    paper.y += 4;
    for (const auto& s : document.assessment().swings) {
      if (!s.input) continue;
      paper.need(92);
      SwingPane swing(own);
      swing.leg = s.leg;
      ClearancePane clearance(own, swing);
      draw_pane(paper, swing, {PrintedPage::left, paper.y, w * 0.6, 88});
      draw_pane(paper, clearance, {PrintedPage::left + w * 0.61, paper.y + 16, w * 0.39, 56});
      paper.y += 92;
    }
    work_section(paper, own);
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

import { Document, Font, Page, Path, renderToBuffer, Svg, Text, View } from '@react-pdf/renderer';
import QRCode from 'qrcode';
import type { KitLabel } from '@/core/packing/label';
import {
  CODE_SIZE,
  FONT_FILES,
  type LabelPlace,
  layLabel,
  lineHeight,
  PADDING,
  PAPERS,
  type Paper,
  type PaperName,
} from './label-layout';

Font.register({
  family: 'Label',
  fonts: [{ src: FONT_FILES.regular }, { src: FONT_FILES.bold, fontWeight: 'bold' }],
});
// Words are never broken with a hyphen that nobody wrote.
Font.registerHyphenationCallback((word) => [word]);

/**
 * Labels as a PDF, in kit order, a label to a place.
 *
 * @throws GlyphMissing when a name holds a character that cannot be printed rightly
 */
export async function labelsPdf(labels: readonly KitLabel[], paperName: PaperName): Promise<Uint8Array> {
  const paper: Paper = PAPERS[paperName];
  const places = labels.flatMap((label) => layLabel(label, paper));
  const perPage = paper.columns * paper.rows;
  const pages: LabelPlace[][] = [];
  for (let index = 0; index < places.length; index += perPage) pages.push(places.slice(index, index + perPage));
  return renderToBuffer(
    <Document title="Kit labels" creator="Logistra" producer="Logistra">
      {pages.map((page) => (
        <Page key={page[0]?.label.kitId} size={[paper.page.width, paper.page.height]}>
          {page.map((place, index) => (
            <LabelView
              key={`${place.label.kitId}${place.part}`}
              place={place}
              paper={paper}
              left={paper.margin.left + (index % paper.columns) * paper.label.width}
              top={paper.margin.top + Math.floor(index / paper.columns) * paper.label.height}
            />
          ))}
        </Page>
      ))}
    </Document>,
  );
}

function LabelView({ place, paper, left, top }: { place: LabelPlace; paper: Paper; left: number; top: number }) {
  const { label, lines, part } = place;
  return (
    <View
      style={{
        position: 'absolute',
        left,
        top,
        width: paper.label.width,
        height: paper.label.height,
        padding: PADDING,
        fontFamily: 'Label',
        flexDirection: 'row',
        justifyContent: 'space-between',
      }}
    >
      <View>
        {lines.map((line, index) => (
          <Text
            key={index}
            wrap={false}
            style={{
              fontSize: line.size,
              fontWeight: line.bold ? 'bold' : 'normal',
              lineHeight: lineHeight(line.size) / line.size,
            }}
          >
            {line.text}
          </Text>
        ))}
      </View>
      <View style={{ width: CODE_SIZE, alignItems: 'center' }}>
        <KitCode id={label.kitId} />
        <Text style={{ fontSize: 20, fontWeight: 'bold', marginTop: 1 }}>{label.variant}</Text>
        <Text style={{ fontSize: 6 }}>{`kit ${label.number}, feeds ${label.servings}`}</Text>
        {part !== '' && <Text style={{ fontSize: 6 }}>{part}</Text>}
      </View>
    </View>
  );
}

/** The kit's id as a QR code, drawn as one path. */
function KitCode({ id }: { id: string }) {
  const { modules } = QRCode.create(id, { errorCorrectionLevel: 'M' });
  // Four modules of quiet around it, as the standard asks.
  const quiet = 4;
  let squares = '';
  for (let y = 0; y < modules.size; y++) {
    for (let x = 0; x < modules.size; x++) {
      if (modules.get(y, x)) squares += `M${x + quiet} ${y + quiet}h1v1h-1z`;
    }
  }
  const size = modules.size + 2 * quiet;
  return (
    <Svg width={CODE_SIZE} height={CODE_SIZE} viewBox={`0 0 ${size} ${size}`}>
      <Path d={squares} fill="black" />
    </Svg>
  );
}

import { givenOfPictures, isPicture } from './pictures';

const bytes = Uint8Array.from([97, 98, 99]);

describe('pictures that are given', () => {
  it('are one text, in their order, named by the first', () => {
    const { body, type } = givenOfPictures([
      { name: 'The notice_on-the "quay".jpg', bytes, type: 'image/webp' },
      { name: 'IMG_2031.JPG', bytes, type: 'image/png' },
    ]);
    expect(type).toBe('text/html');
    expect(body).toBe(
      '<title>The notice on the &quot;quay&quot;</title>' +
        '<figure><img src="data:image/webp;base64,YWJj" alt="The notice on the &quot;quay&quot;"></figure>' +
        '<figure><img src="data:image/png;base64,YWJj" alt=""></figure>',
    );
  });

  it.each(['IMG_2031.jpg', 'PXL_20260101_101500.jpg', 'image.png', 'blob.png', '20260102.jpeg', 'scan (3).png'])(
    'have no name when a camera gave it: %s',
    (name) => expect(givenOfPictures([{ name, bytes, type: 'image/webp' }]).body).toMatch(/^<title><\/title>/),
  );

  it('are told by what the browser says, or by their ending', () => {
    const file = (name: string, type = '') => isPicture({ name, type });
    expect([
      file('a.txt', 'image/png'),
      file('a.HEIC'),
      file('a.tiff'),
      file('a.pdf', 'application/pdf'),
      file('jpg'),
    ]).toEqual([true, true, true, false, false]);
  });
});
